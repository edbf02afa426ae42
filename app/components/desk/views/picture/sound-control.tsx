import { Volume1, Volume2, VolumeX } from "lucide-react";
import { Popover } from "radix-ui";
import { Button, Hint, IconButton } from "~/components/common/button";
import { Slider } from "~/components/common/slider";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import type { Player } from "../../model/player";
import { useSound } from "../../hooks/use-player";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.soundControl;

/** Volume and mute. */
export function SoundControl({ player }: { player: Player | null }) {
  const keysOf = useShortcutText();
  const sound = useSound(player);
  const percent = Math.round(100 * sound.volume);
  const isSilent = sound.muted || percent === 0;
  const Icon = isSilent ? VolumeX : percent < 50 ? Volume1 : Volume2;
  const mute = () => player?.setSound({ ...sound, muted: !sound.muted });
  return (
    <Popover.Root>
      <Hint text={t.volume} shortcut={keysOf("mute")}>
        <Popover.Trigger asChild>
          <Button variant="quiet" aria-label={isSilent ? t.volumeMuted : t.volumeOf(percent)} className="h-8 w-8 !px-0">
            <Icon className="size-4" aria-hidden />
          </Button>
        </Popover.Trigger>
      </Hint>
      <Popover.Portal>
        <Popover.Content
          side="top"
          sideOffset={6}
          className="z-40 flex w-56 items-center gap-2 rounded-md border border-line bg-raised p-3 shadow-lg"
        >
          <div className="grow">
            <Slider
              label={t.volume}
              value={percent}
              max={100}
              ends={[t.off, t.full]}
              heading={(shown) => <span className="text-xs text-soft">{t.volumeShown(shown)}</span>}
              onChange={(next) => player?.setSound({ volume: next / 100, muted: false })}
            />
          </div>
          <IconButton label={sound.muted ? t.unmute : t.mute} shortcut={keysOf("mute")} onClick={mute}>
            <VolumeX className="size-4" aria-hidden />
          </IconButton>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
