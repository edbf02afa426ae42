import { Film, Image, RectangleHorizontal, Trash2, Type } from "lucide-react";
import { IconButton } from "~/components/common/button";
import { SortableList, SortableRow } from "~/components/common/sortable-list";
import { type Layer, nameOfLayer } from "~/core/composition/layers/layer";
import { timecodeAt } from "~/core/time/timecode";
import { useDesk } from "../../hooks/use-desk";
import { layersTexts } from "~/texts/layers";

const t = layersTexts.layerList;

const ICONS = { text: Type, shape: RectangleHorizontal, picture: Image };
const iconOf = (layer: Layer) => (layer.kind === "picture" && layer.picture.moving ? Film : ICONS[layer.kind]);

/** The layers of a version, front to back. */
export function LayerList({ layers }: { layers: readonly Layer[] }) {
  const { film, player, layerId, selectLayer } = useDesk("film", "player", "layerId", "selectLayer");
  const { move, remove } = useDesk("layerCommands").layerCommands;
  const when = ({ range }: Layer) =>
    range ? t.to(timecodeAt(range.start, film.clock), timecodeAt(range.end, film.clock)) : t.theWholeFilm;
  const select = (layer: Layer) => {
    selectLayer(layer.id);
    const { range } = layer;
    const here = player?.getTarget() ?? 0;
    if (range && (here < range.start || here >= range.end)) player?.seek(range.start);
  };
  return (
    <SortableList
      label={t.layersTheOneInFront}
      keys={layers.map(({ id }) => id).reverse()}
      onMove={(from, to) => move(layers.at(-1 - from)!, layers.length - 1 - to)}
      className="flex flex-col gap-1"
    >
      {layers
        .map((layer) => {
          const Icon = iconOf(layer);
          return (
            <SortableRow
              key={layer.id}
              id={layer.id}
              name={nameOfLayer(layer)}
              className="flex items-center gap-1 rounded-md border bg-panel pl-1.5 has-[[aria-pressed=true]]:border-accent has-[[aria-pressed=true]]:bg-accent-wash"
            >
              {(grip) => (
                <>
                  {grip}
                  <button
                    type="button"
                    aria-pressed={layer.id === layerId}
                    onClick={() => select(layer)}
                    className="flex min-w-0 grow items-center gap-2 px-1 py-1.5 text-left"
                  >
                    <Icon className="size-3.5 shrink-0 text-soft" aria-hidden />
                    <span className="min-w-0">
                      <span className="block truncate text-sm first-letter:uppercase">{nameOfLayer(layer)}</span>
                      <span className="block text-xs text-soft">{when(layer)}</span>
                    </span>
                  </button>
                  <IconButton label={t.deleteTheLayer} onClick={() => remove(layer)}>
                    <Trash2 className="size-3.5" aria-hidden />
                  </IconButton>
                </>
              )}
            </SortableRow>
          );
        })
        .reverse()}
    </SortableList>
  );
}
