import { useDesk } from "../../hooks/use-desk";
import { useFrame, useShotHere } from "../../hooks/use-player";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.otherPanes;

/** Size of a pane's number, as a share of the picture's width. */
const TAG = 0.022;

/** The windows of a shot's other panes, each with its number; a click selects one. */
export function OtherPanes() {
  const { film, player, shots, shownAt, selectPane } = useDesk("film", "player", "shots", "shownAt", "selectPane");
  const shot = useShotHere(player, shots);
  const frame = useFrame(player);
  if (!shot || shot.panes.length < 2) return null;
  const side = TAG * film.picture.width;
  return shownAt(frame).panes.map(({ source, own }, pane) => {
    if (own) return null;
    const isSelected = pane === shot.pane;
    return (
      <g key={pane}>
        {!isSelected && (
          <rect
            {...source}
            role="button"
            tabIndex={0}
            aria-label={t.selectPane(pane + 1)}
            className="cursor-pointer fill-transparent stroke-white/80 [vector-effect:non-scaling-stroke] hover:stroke-white focus:outline-none focus-visible:[stroke-width:4]"
            strokeWidth={1.5}
            onClick={() => selectPane(pane)}
            onKeyDown={({ key }) => key === "Enter" && selectPane(pane)}
          />
        )}
        <g
          pointerEvents="none"
          transform={`translate(${source.x + side * (0.3 + 1.2 * pane)} ${source.y + 0.3 * side})`}
        >
          <rect width={side} height={side} rx={side / 6} className={isSelected ? "fill-accent" : "fill-black/70"} />
          <text
            x={side / 2}
            y={side / 2}
            fontSize={0.7 * side}
            textAnchor="middle"
            dominantBaseline="central"
            className={isSelected ? "fill-accent-ink font-bold" : "fill-white font-bold"}
          >
            {pane + 1}
          </text>
        </g>
      </g>
    );
  });
}
