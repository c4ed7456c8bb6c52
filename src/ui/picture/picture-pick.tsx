"use client";
import clsx from "clsx";
import { ImageUp } from "lucide-react";
import { useState } from "react";
import { LARGEST_PICTURE } from "../../formats/largest-file";
import type { PictureFacts } from "../../server/pictures/picture-view";
import { Fault } from "../primitives/notice";

type Props = {
  trialId: number;
  n: number;
  onTaken: (picture: PictureFacts) => void;
  small: boolean;
  /** The coupon is a grid of dots. */
  isGrid: boolean;
};
type Answer = { ok: true; value: PictureFacts } | { ok: false; message: string };

/** A scan or a microscope shot is dropped here, or chosen; it is on disk when it shows. */
export function PicturePick({ trialId, n, onTaken, small, isGrid }: Props) {
  const [over, setOver] = useState(false);
  const [sending, setSending] = useState("");
  const [fault, setFault] = useState("");

  async function take(file: File | undefined) {
    if (!file) return;
    setFault("");
    if (file.size > LARGEST_PICTURE)
      return setFault(`${file.name} is too large: at most ${LARGEST_PICTURE / 1024 / 1024} MB are taken at once.`);
    setSending(file.name);
    const result = await fetch(`/api/trials/${trialId}/rounds/${n}/pictures?name=${encodeURIComponent(file.name)}`, {
      method: "POST",
      body: file,
      headers: { "Content-Type": "application/octet-stream" },
    })
      .then(
        async (answer): Promise<Answer> =>
          answer.headers.get("content-type")?.startsWith("application/json")
            ? ((await answer.json()) as Answer)
            : { ok: false, message: await answer.text() },
      )
      .catch((): Answer => ({ ok: false, message: "The server does not answer: the picture was not taken." }));
    setSending("");
    if (result.ok) onTaken(result.value);
    else setFault(result.message);
  }

  return (
    <section
      aria-label="A picture"
      className={clsx(
        "rounded-lg border-2 border-dashed text-center",
        small ? "p-3" : "grid min-h-[320px] content-center p-8",
        over ? "border-ember bg-ember-tint" : "border-line",
      )}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        void take(e.dataTransfer.files[0]);
      }}
    >
      <label className="block cursor-pointer">
        {!small && <ImageUp className="mx-auto mb-3 text-ink3" size={40} aria-hidden="true" />}
        <span className={clsx("font-semibold", !small && "text-[17px]")}>
          {sending
            ? `Taking ${sending} …`
            : small
              ? "Drop or choose another picture"
              : isGrid
                ? "Drop a scan or photo of the grid here"
                : "Drop a scan of the coupon here"}
        </span>
        {!small && (
          <span className="mt-1 block text-ink2">
            {isGrid
              ? "The whole stock, flat: PNG, JPEG, TIFF or WebP."
              : "or a microscope shot of one of its places: PNG, JPEG, TIFF or WebP, marked face up."}
            <br />
            {isGrid ? "600 dots per inch are enough." : "1200 dots per inch show a micrometre."}
          </span>
        )}
        <input
          type="file"
          accept="image/png,image/jpeg,image/tiff,image/webp,.png,.jpg,.jpeg,.tif,.tiff,.webp"
          className="mx-auto mt-3 block w-full max-w-60 file:mr-3 file:rounded-md file:border file:border-border file:bg-sheet file:px-3 file:py-1.5 max-sm:file:py-2.5"
          disabled={sending !== ""}
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = "";
            void take(file);
          }}
        />
      </label>
      {fault && <Fault>{fault}</Fault>}
    </section>
  );
}
