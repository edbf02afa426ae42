import { clamped } from "~/core/numbers/clamped";
import { useState } from "react";
import { Area, AreaChart, ReferenceArea, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { type ChartMoment, chartMoments } from "~/core/checks/measures";
import type { FrameRange } from "~/core/time/rate";
import { timecodeAt } from "~/core/time/timecode";
import { useDesk } from "../../hooks/use-desk";
import { subjectColour } from "../../model/desk-types";
import { type Band, bandAt, followedBands, speakingBands } from "./chart-bands";
import { useMeasures } from "./use-measures";
import { checksTexts } from "~/texts/checks";

const t = checksTexts.checkCharts;

/** Moments in a chart, as many as it has room for. */
const MOMENTS = 400;
const CHART_HEIGHT = 64;
const BAND_HEIGHT = 22;

const CHARTS = [
  { measure: "inside", name: t.inside, domain: [0, 1], say: t.share },
  { measure: "speed", name: t.speed, domain: [0, "auto"], say: t.value },
  { measure: "jerk", name: t.jerk, domain: [0, "auto"], say: t.value },
  { measure: "scale", name: t.scale, domain: [0, "auto"], say: t.times },
] as const satisfies { measure: keyof ChartMoment; name: string; domain: [number, number | "auto"]; say: unknown }[];

/** Over the film's time: how much of the subject is inside, how the window moves, who is followed and who speaks. */
export function CheckCharts() {
  const { shots, film, player, checks } = useDesk("shots", "film", "player", "checks");
  const measured = useMeasures(shots, film.rate);
  const moments = chartMoments(
    measured.map(({ measures }) => measures),
    film.frames,
    MOMENTS,
  );
  const [followed, speaking] = [followedBands(shots), speakingBands(shots)];
  const [dragged, setDragged] = useState<{ from: number; to: number } | null>(null);
  const time = (frame: number) => timecodeAt(clamped(frame, 0, film.frames - 1), film.clock);

  const goTo = ({ start, end }: FrameRange) => {
    player?.pause();
    player?.seek(start);
    player?.setLoop(end > start + 1 ? { start, end } : null);
    checks.setOpen(false);
  };
  // While pressed, the range follows the pointer over every chart.
  const selecting = {
    onMouseDown: ({ activeLabel }: { activeLabel?: string | number }) => {
      if (activeLabel !== undefined) setDragged({ from: Number(activeLabel), to: Number(activeLabel) });
    },
    onMouseMove: ({ activeLabel }: { activeLabel?: string | number }) => {
      if (dragged && activeLabel !== undefined) setDragged({ ...dragged, to: Number(activeLabel) });
    },
    onMouseUp: () => {
      if (!dragged) return;
      setDragged(null);
      const each = moments[1]?.frame ?? 1;
      const [start, end] = [Math.min(dragged.from, dragged.to), Math.max(dragged.from, dragged.to)];
      goTo({ start, end: Math.min(film.frames, start === end ? start + 1 : end + each) });
    },
  };
  const chart = { moments, frames: film.frames, time, selecting };
  const selected = dragged && (
    <ReferenceArea x1={dragged.from} x2={dragged.to} fill="var(--accent)" fillOpacity={0.2} />
  );
  return (
    <section aria-label={t.charts} className="flex flex-col gap-3 select-none">
      <div>
        <h3 className="text-sm font-medium">{t.charts}</h3>
        <p className="text-xs text-soft">{t.howTo}</p>
      </div>
      {CHARTS.map(({ measure: value, name, domain, say }) => (
        <Chart
          key={value}
          {...{ ...chart, name, domain, height: CHART_HEIGHT }}
          says={(_frame, shown) => (shown == null ? null : say(shown))}
        >
          <Area
            dataKey={value}
            type="stepAfter"
            stroke="var(--accent)"
            fill="var(--accent-wash)"
            strokeWidth={1}
            dot={false}
            activeDot={false}
            isAnimationActive={false}
          />
          {selected}
        </Chart>
      ))}
      {[
        { name: t.followed, bands: followed },
        { name: t.speaking, bands: speaking },
      ].map(({ name, bands }) => (
        <Chart
          key={name}
          {...{ ...chart, name, domain: [0, 1], height: BAND_HEIGHT }}
          says={(frame) => saysBand(bandAt(bands, frame))}
        >
          <Area dataKey={() => 0} stroke="none" fill="none" activeDot={false} isAnimationActive={false} />
          {bands.map((band) => (
            <ReferenceArea
              key={`${band.start} ${band.letter}`}
              x1={band.start}
              x2={band.end}
              y1={0}
              y2={1}
              fill={subjectColour(band.colour)}
              fillOpacity={1}
              label={
                band.end - band.start > film.frames / 25
                  ? { value: band.letter, fontSize: 12, fontWeight: 700, fill: "#000000" }
                  : undefined
              }
            />
          ))}
          {selected}
        </Chart>
      ))}
    </section>
  );
}

interface ChartProps {
  name: string;
  height: number;
  domain: readonly [number, number | "auto"];
  moments: ChartMoment[];
  frames: number;
  /** A frame as timecode. */
  time: (frame: number) => string;
  /** Text about a frame and the value there; null for nothing. */
  says: (frame: number, shown: number | null | undefined) => string | null;
  selecting: object;
  children: React.ReactNode;
}

/** A chart over the whole film, in step with the others. */
function Chart({ name, height, domain, moments, frames, time, says, selecting, children }: ChartProps) {
  return (
    <figure>
      <figcaption className="text-xs text-soft">{name}</figcaption>
      <ResponsiveContainer width="100%" height={height}>
        <AreaChart
          data={moments}
          syncId="checks"
          syncMethod="value"
          margin={{ top: 2, right: 0, bottom: 0, left: 0 }}
          accessibilityLayer={false}
          {...selecting}
        >
          <XAxis dataKey="frame" type="number" domain={[0, frames]} hide />
          <YAxis domain={[...domain]} hide />
          <Tooltip
            isAnimationActive={false}
            content={({ active, label, payload }) => {
              const text = active ? says(Number(label), payload[0]?.value as number | undefined) : null;
              return text === null ? null : <ChartHint place={time(Number(label))} text={text} />;
            }}
          />
          {children}
        </AreaChart>
      </ResponsiveContainer>
    </figure>
  );
}

const saysBand = (band: Band | undefined): string => band?.name ?? band?.letter ?? t.nobody;

const ChartHint = ({ place, text }: { place: string; text: string }) => (
  <p className="rounded-md border border-line bg-raised px-2 py-1 text-xs shadow-lg">
    <span className="font-mono">{place}</span> {text}
  </p>
);
