import { Button } from "~/components/common/button";
import { TickBox } from "~/components/common/tick-box";
import { MOST_PANE_ZOOM, newPanePicture, ownIn, type PanePicture, type Stack, withOwn } from "~/core/composition/stack";
import { PercentSlider } from "~/components/common/percent-slider";
import { PicturePicker } from "../fields/picture-picker";
import { PlaybackControls } from "../fields/playback-controls";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.paneContents;

interface PaneContentsProps {
  stack: Stack;
  onChange: (stack: Stack) => void;
}

/** Content of the panes after the first: the film, or one of the editor's own pictures or films. */
export function PaneContents({ stack, onChange }: PaneContentsProps) {
  const others = stack.places
    .map(({ pane }) => pane)
    .filter((pane) => pane > 0)
    .sort((a, b) => a - b);
  const hasOwn = others.some((pane) => ownIn(stack, pane));
  const silent = (muted: boolean) => {
    const { muted: _, ...rest } = stack;
    onChange(muted ? { ...rest, muted } : rest);
  };
  return (
    <>
      {others.map((pane) => {
        const own = ownIn(stack, pane);
        const put = (next: PanePicture | null) => onChange(withOwn(stack, pane, next));
        return (
          <section key={pane} aria-label={t.whatPaneShows(pane + 1)} className="flex flex-col gap-2">
            <div className="flex items-baseline justify-between gap-2 text-xs text-soft">
              <span className="shrink-0">{t.paneShows(pane + 1)}</span>
              <span className="truncate">{own ? own.picture.name : t.thisFilm}</span>
            </div>
            {own && <OwnControls own={own} onChange={put} />}
            <div className="flex flex-wrap gap-2">
              <PicturePicker
                text={own ? t.replace : t.otherContent}
                onPicked={(picture) => put(own ? { ...own, picture } : newPanePicture(picture))}
              />
              {own && <Button onClick={() => put(null)}>{t.showThisFilm}</Button>}
            </div>
          </section>
        );
      })}
      {hasOwn && (
        <label className="flex items-center gap-2 text-xs text-soft">
          <TickBox checked={stack.muted !== true} onChange={(heard) => silent(!heard)} />
          {t.soundOfThisFilm}
        </label>
      )}
    </>
  );
}

function OwnControls({ own, onChange }: { own: PanePicture; onChange: (own: PanePicture) => void }) {
  return (
    <>
      <PercentSlider
        label={t.zoom}
        value={Math.round((100 * (own.zoom - 1)) / (MOST_PANE_ZOOM - 1))}
        ends={[t.asMuchAsFits, t.near]}
        onChange={(percent) => onChange({ ...own, zoom: 1 + (percent / 100) * (MOST_PANE_ZOOM - 1) })}
      />
      <PercentSlider
        label={t.across}
        value={Math.round(100 * own.x)}
        ends={[t.left, t.right]}
        onChange={(x) => onChange({ ...own, x: x / 100 })}
      />
      <PercentSlider
        label={t.down}
        value={Math.round(100 * own.y)}
        ends={[t.top, t.bottom]}
        onChange={(y) => onChange({ ...own, y: y / 100 })}
      />
      <PlaybackControls
        picture={own.picture}
        playback={own.playback}
        onChange={(playback) => onChange({ ...own, playback })}
      />
      {own.picture.moving?.sound && (
        <label className="flex items-center gap-2 text-xs text-soft">
          <TickBox checked={own.sounds} onChange={(sounds) => onChange({ ...own, sounds })} />
          {t.soundOfThisPane}
        </label>
      )}
    </>
  );
}
