import type Konva from "konva";
import { useEffect, useRef, useState } from "react";
import { Layer as KonvaLayer, Line, Rect, Stage, Transformer } from "react-konva";
import { groundOf, placeAt, placeLayer } from "~/core/composition/layers/draw-layer";
import type { Layer } from "~/core/composition/layers/layer";
import { type Guide, snapBox } from "~/core/composition/layers/snap";
import { resized } from "~/core/composition/layers/resize-layer";
import type { Box, Size } from "~/core/geometry/box";
import { useTheme } from "../../hooks/use-theme";
import { useFrame } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";
import { measuringPen } from "./measuring-pen";

/** Distance within which a drag snaps to a line, in pixels of the screen. */
const SNAP_REACH = 6;
const CORNERS = ["top-left", "top-right", "bottom-left", "bottom-right"];
const SIDES = ["middle-left", "middle-right"];
const ENDS = ["top-center", "bottom-center"];
/** Resizing handles: a text keeps its line height, a picture its aspect ratio. */
const ANCHORS: Record<Layer["kind"], string[]> = {
  text: [...CORNERS, ...SIDES],
  shape: [...CORNERS, ...SIDES, ...ENDS],
  picture: CORNERS,
};

/** The layer being dragged or resized, as it was at the start. */
interface Held {
  layer: Layer;
  box: Box;
}

/** The layers at the frame on screen, on the result: selected, dragged and resized there. */
export default function LayerStage({ size }: { size: Size }) {
  const { player, version, shownAt, layerId, selectLayer } = useDesk(
    "player",
    "version",
    "shownAt",
    "layerId",
    "selectLayer",
  );
  const theme = useTheme();
  const { layerCommands: edits } = useDesk("layerCommands");
  const frame = useFrame(player);
  const [held, setHeld] = useState<Held | null>(null);
  const [guides, setGuides] = useState<Guide[]>([]);
  const transformer = useRef<Konva.Transformer>(null);
  const nodes = useRef(new Map<string, Konva.Rect>());
  const ground = groundOf(version);
  const scale = size.width / version.width;
  const layers = (shownAt(frame).layers?.at ?? []).map(({ layer }) => layer);
  const selected = layers.find(({ id }) => id === layerId);

  useEffect(() => {
    const node = selected && nodes.current.get(selected.id);
    transformer.current?.nodes(node ? [node] : []);
  }, [selected, size.width]);

  const boxOf = (layer: Layer) => placeLayer(layer, ground, measuringPen()).box;
  /** The box of a node on the screen, in pixels of the frame. */
  const boxOfNode = (node: Konva.Node): Box => ({
    x: node.x() / scale,
    y: node.y() / scale,
    width: (node.width() * node.scaleX()) / scale,
    height: (node.height() * node.scaleY()) / scale,
  });
  const hold = (layer: Layer) => {
    player?.pause();
    selectLayer(layer.id);
    setHeld({ layer, box: boxOf(layer) });
  };
  const leave = () => {
    setHeld(null);
    setGuides([]);
  };
  const drag = (node: Konva.Node, layer: Layer, isFree: boolean): Layer => {
    const wanted = boxOfNode(node);
    const { box, guides: lines } = isFree ? { box: wanted, guides: [] } : snapBox(wanted, ground, SNAP_REACH / scale);
    node.position({ x: box.x * scale, y: box.y * scale });
    setGuides(lines);
    return { ...layer, ...placeAt(layer, box, ground) };
  };
  const resize = (node: Konva.Node, layer: Layer): Layer => {
    const anchor = transformer.current?.getActiveAnchor() ?? "";
    const isCorner = CORNERS.includes(anchor);
    return resized(layer, boxOf(layer), boxOfNode(node), isCorner, ground, measuringPen());
  };
  return (
    <Stage
      width={size.width}
      height={size.height}
      className="absolute inset-0"
      onMouseDown={({ target }) => target === target.getStage() && selectLayer(null)}
    >
      <KonvaLayer>
        {layers.map((layer) => {
          const isHeld = held?.layer.id === layer.id;
          const box = isHeld ? held.box : boxOf(layer);
          const from = isHeld ? held.layer : layer;
          return (
            <Rect
              key={layer.id}
              ref={(node) => void (node ? nodes.current.set(layer.id, node) : nodes.current.delete(layer.id))}
              x={box.x * scale}
              y={box.y * scale}
              width={box.width * scale}
              height={box.height * scale}
              // A filled area, so that it can be hit.
              fill="rgba(0, 0, 0, 0.001)"
              stroke={theme?.accent ?? ""}
              strokeEnabled={layer.id === layerId}
              strokeScaleEnabled={false}
              strokeWidth={1}
              draggable
              onMouseDown={() => selectLayer(layer.id)}
              onTap={() => selectLayer(layer.id)}
              onDragStart={() => hold(layer)}
              onDragMove={({ target, evt }) => edits.preview(drag(target, from, evt.shiftKey))}
              onDragEnd={({ target, evt }) => {
                edits.put(drag(target, from, evt.shiftKey));
                leave();
              }}
              onTransformStart={() => hold(layer)}
              onTransform={({ target }) => edits.preview(resize(target, from))}
              onTransformEnd={({ target }) => {
                edits.put(resize(target, from));
                target.scale({ x: 1, y: 1 });
                leave();
              }}
            />
          );
        })}
        {guides.map(({ axis, at }) => (
          <Line
            key={axis}
            points={axis === "x" ? [at * scale, 0, at * scale, size.height] : [0, at * scale, size.width, at * scale]}
            stroke={theme?.accent ?? ""}
            strokeWidth={1}
            dash={[4, 3]}
            listening={false}
          />
        ))}
        <Transformer
          ref={transformer}
          rotateEnabled={false}
          flipEnabled={false}
          keepRatio
          enabledAnchors={selected ? ANCHORS[selected.kind] : CORNERS}
          anchorSize={8}
          anchorFill={theme?.panel ?? ""}
          anchorStroke={theme?.accent ?? ""}
          borderStroke={theme?.accent ?? ""}
          ignoreStroke
        />
      </KonvaLayer>
    </Stage>
  );
}
