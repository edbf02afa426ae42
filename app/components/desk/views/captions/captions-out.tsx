import { TickBox } from "~/components/common/tick-box";
import { captionsTexts } from "~/texts/captions";
import { useDesk } from "../../hooks/use-desk";

const t = captionsTexts.captionsOut;

const WAYS = [
  { way: "burnt", text: t.burnt },
  { way: "sidecar", text: t.sidecar },
  { way: "track", text: t.track },
] as const;

/** How captions are delivered with the version. */
export function CaptionsOut() {
  const { version, captionCommands } = useDesk("version", "captionCommands");
  return (
    <fieldset className="flex flex-col gap-1.5">
      <legend className="pb-1 text-xs text-soft">{t.inExports}</legend>
      {WAYS.map(({ way, text }) => (
        <label key={way} className="flex items-center gap-2 text-sm">
          <TickBox checked={version.captions[way]} onChange={(isOn) => captionCommands.set({ [way]: isOn })} />
          {text}
        </label>
      ))}
    </fieldset>
  );
}
