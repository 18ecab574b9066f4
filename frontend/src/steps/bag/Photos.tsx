import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { RequestError, type Schemas, sendFile } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { useSendId } from "../../app/useSendId";
import classes from "./Bag.module.css";

interface Props {
  name: string;
  photos: readonly string[];
  /** What becomes of the photos, as they are by then: a photo takes its time. */
  onChange: (change: (photos: readonly string[]) => string[]) => void;
}

/** Photos of a club: its sole, its face, its wear. What the camera wrote into the file is not kept. */
export function Photos({ name, photos, onChange }: Props) {
  const { server } = useStore();
  const file = useRef<HTMLInputElement>(null);
  const [gone, setGone] = useState<readonly string[]>([]);
  const base = `/api/fittings/${server.id}/photos`;
  const sending = useSendId();
  const send = useMutation({
    mutationFn: (picked: File) => {
      const told = { name: picked.name, size: picked.size, on: picked.lastModified };
      return sendFile<Schemas["PhotoOut"]>(`${base}?id=${sending.of(told)}`, picked);
    },
    onSuccess: (photo) => {
      sending.arrived();
      onChange((now) => [...now, photo.id]);
    },
  });
  const faults = send.error instanceof RequestError ? (send.error.body?.faults ?? []) : [];
  return (
    <div className={classes.photos}>
      {photos.map((photo, i) => (
        <figure key={photo}>
          {gone.includes(photo) ? (
            <span>not kept here</span>
          ) : (
            <a href={`${base}/${photo}`} target="_blank" rel="noreferrer">
              <img
                src={`${base}/${photo}`}
                alt={`${name}, ${i + 1}`}
                loading="lazy"
                onError={() => setGone((before) => [...before, photo])}
              />
            </a>
          )}
          <button type="button" onClick={() => onChange((now) => now.filter((other) => other !== photo))}>
            Remove
          </button>
        </figure>
      ))}
      <Button
        size="xs"
        variant="default"
        loading={send.isPending}
        disabled={photos.length >= TABLES.most.photos}
        onClick={() => file.current?.click()}
      >
        Add a photo
      </Button>
      <input
        ref={file}
        type="file"
        accept="image/png,image/jpeg"
        aria-label={`Photo of ${name}`}
        className="visually-hidden"
        tabIndex={-1}
        onChange={(event) => {
          const picked = event.currentTarget.files?.[0];
          if (picked) send.mutate(picked);
          if (file.current) file.current.value = "";
        }}
      />
      {send.isError && (
        <span role="alert" className={classes.photoFault}>
          {faults[0] ? `The photo ${faults[0].message}.` : send.error.message}
        </span>
      )}
    </div>
  );
}
