import { NativeSelect } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { api, type Ground, unwrap } from "../../api/client";
import { copied } from "../ground/copied";

/** The venues that the studio has read: none is asked for twice. */
export function useVenues() {
  const library = useQuery({ queryKey: ["venues"], queryFn: () => unwrap(api.GET("/api/venues")) });
  return library.data?.records ?? [];
}

interface Props {
  label: string;
  /** Pixels above it. */
  mt?: number;
  onPick: (ground: Ground) => void;
}

/** A venue of the library by its name; its ground comes as it was read. */
export function VenueSelect({ label, mt, onPick }: Props) {
  const records = useVenues();
  return (
    <NativeSelect
      label={label}
      w={240}
      mt={mt}
      value=""
      data={[
        { value: "", label: records.length > 0 ? "choose a venue" : "no venue is kept yet" },
        ...records.map((record, n) => ({
          value: String(n),
          label: `${record.venue}, ${record.season} ${record.read_on.slice(0, 4)}`,
        })),
      ]}
      onChange={(event) => {
        const record = records[Number(event.currentTarget.value)];
        if (event.currentTarget.value === "" || !record) return;
        onPick({ ...copied(record.ground), name: record.venue, share: 1 });
      }}
    />
  );
}
