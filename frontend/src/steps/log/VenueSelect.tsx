import { NativeSelect } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { api, type Ground, unwrap } from "../../api/client";
import { copied } from "../ground/copied";

/** The venues that the studio has read, none of which is asked for twice; and what else there is to say of them. */
export function useVenues() {
  const library = useQuery({ queryKey: ["venues"], queryFn: () => unwrap(api.GET("/api/venues")) });
  const records = library.data?.records ?? [];
  if (records.length > 0) return { records, words: "choose a venue" };
  if (library.isError) return { records, words: library.error.message };
  return { records, words: library.data ? "no venue is kept yet" : "reading the venues …" };
}

interface Props {
  label: string;
  /** Pixels above it. */
  mt?: number;
  onPick: (ground: Ground) => void;
}

/** A venue of the library by its name; its ground comes as it was read. */
export function VenueSelect({ label, mt, onPick }: Props) {
  const { records, words } = useVenues();
  return (
    <NativeSelect
      label={label}
      w={240}
      mt={mt}
      value=""
      data={[
        { value: "", label: words },
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
