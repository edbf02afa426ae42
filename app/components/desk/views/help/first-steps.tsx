import { Popover } from "radix-ui";
import { type RefObject, useEffect, useRef, useState } from "react";
import { Button } from "~/components/common/button";
import { focusPanel } from "~/components/common/dialog-panel";
import { storeText, useStoredText } from "~/components/common/use-stored";
import { DEMO_FILM_NAME } from "~/core/film/demo-film";
import { useDesk } from "../../hooks/use-desk";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.firstSteps;

const KEY = "glad-pan first steps";

interface Step {
  title: string;
  text: string;
  /** Selector of the part of the desk that it explains. */
  at: string;
  side: "top" | "right" | "bottom" | "left";
}

const STEPS: readonly Step[] = [
  {
    title: t.theShots,
    text: t.eachShotOfTheFilm,
    at: "[aria-label='Shots of the film']",
    side: "right",
  },
  {
    title: t.theWindow,
    text: t.whatLiesInsideTheWindow,
    at: "[aria-label='The whole picture']",
    side: "bottom",
  },
  {
    title: t.theLane,
    text: t.theWindowsPathStraightUnder,
    at: "[aria-label='Lane']",
    side: "top",
  },
  {
    title: t.whoToFollow,
    text: t.followText,
    at: "[aria-label='Settings']",
    side: "left",
  },
  {
    title: t.export,
    text: t.whenItLooksRightHere,
    at: "[data-step='export']",
    side: "bottom",
  },
];

/** Starts the first steps again. */
export const startFirstSteps = (): void => storeText(KEY, "1");

/** Five steps through the desk, on the first visit to the demo film, and on request. */
export function FirstSteps() {
  const { film, shots } = useDesk("film", "shots");
  const stored = useStoredText(KEY);
  const isReady = shots.length > 0;
  useEffect(() => {
    if (isReady && film.name === DEMO_FILM_NAME && localStorage.getItem(KEY) === null) startFirstSteps();
  }, [isReady, film.name]);
  const step = STEPS[Number(stored) - 1];
  if (!step) return null;
  return <StepPanel key={stored} step={step} number={Number(stored)} />;
}

function StepPanel({ step, number }: { step: Step; number: number }) {
  const target = useRef<Element | null>(null);
  const [isThere, setThere] = useState(false);
  useEffect(() => {
    target.current = document.querySelector(step.at);
    setThere(target.current !== null);
    target.current?.setAttribute("data-shown-step", "");
    return () => target.current?.removeAttribute("data-shown-step");
  }, [step]);
  const go = (to: number) => storeText(KEY, to >= 1 && to <= STEPS.length ? String(to) : "done");
  if (!isThere) return null;
  return (
    <Popover.Root open onOpenChange={(isOpen) => !isOpen && go(0)}>
      <Popover.Anchor virtualRef={target as RefObject<Element>} />
      <Popover.Portal>
        <Popover.Content
          side={step.side}
          sideOffset={-24}
          collisionPadding={16}
          aria-label={t.firstSteps}
          onOpenAutoFocus={focusPanel}
          onInteractOutside={(event) => event.preventDefault()}
          className="z-40 flex w-80 flex-col gap-2 rounded-lg border border-accent bg-raised p-4 text-sm shadow-xl outline-none"
        >
          <h2 className="font-display text-base font-semibold">{step.title}</h2>
          <p>{step.text}</p>
          <div className="mt-1 flex items-center gap-2">
            <span className="grow text-xs text-soft">{t.of(number, STEPS.length)}</span>
            {number < STEPS.length && (
              <Button variant="quiet" onClick={() => go(0)}>
                {t.skip}
              </Button>
            )}
            {number > 1 && <Button onClick={() => go(number - 1)}>{t.back}</Button>}
            <Button variant="accent" onClick={() => go(number + 1)}>
              {number < STEPS.length ? t.next : t.done}
            </Button>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
