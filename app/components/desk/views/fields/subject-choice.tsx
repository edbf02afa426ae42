import { Flag } from "lucide-react";
import { Hint } from "~/components/common/button";
import { assertNever } from "~/core/basics/assert-never";
import { TickBox } from "~/components/common/tick-box";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import { withMust } from "~/core/subjects/attention/attention-settings";
import { type FollowRule, readRule, writeRule } from "~/core/subjects/choosing/follow-rule";
import type { CastMember } from "~/core/subjects/choosing/cast";
import { useDesk } from "../../hooks/use-desk";
import { type DeskShot, followedIn } from "../../model/desk-types";
import { Letter } from "../../../common/letter";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.subjectChoice;

/** Rules available in any shot, as `writeRule` writes them. */
const FOLLOW_RULES: SelectItem[] = [
  { value: "auto", text: t.auto, hint: t.autoHint },
  { value: "second", text: t.theSecond, hint: t.secondHint },
  { value: "both", text: t.twoTogether, hint: t.togetherHint },
  { value: "speaker", text: t.speakerCut, hint: t.speakerCutHint },
  { value: "speaker-pan", text: t.speakerPan, hint: t.speakerPanHint },
  { value: "everything", text: t.everything, hint: t.everythingHint },
  { value: "none", text: t.nothing, hint: t.nothingHint },
];

/** Whether a rule names this member of the cast. */
function isNamed(rule: FollowRule, { track }: CastMember): boolean {
  if (rule.kind === "track") return rule.trackId === track.id;
  return rule.kind === "person" && rule.who === track.who;
}

/** The id by which a cast member can be required in every shot: people and marks are known beyond one shot. */
const mustIdOf = ({ track }: CastMember): string | null => track.who ?? (track.kind === "mark" ? track.id : null);

/** Label of a rule that is not in the menu. */
function nameOfRule({ kind }: FollowRule, named: CastMember | undefined): string {
  if (kind === "switches") return t.yourSwitches;
  return named?.name ?? (named ? t.only(named.letter) : t.onlyOne);
}

/** Whom a shot follows and why, the alternatives, and the rule. */
export function SubjectChoice({ shot, onChange }: { shot: DeskShot; onChange: (rule: FollowRule) => void }) {
  const named = shot.cast.find((member) => isNamed(shot.follow, member));
  const known = FOLLOW_RULES.some(({ value }) => value === shot.follow.kind);
  const followed = followedIn(shot);
  const { edits, state } = useDesk("edits", "state");
  const { attention } = state;
  const must = followed && mustIdOf(followed);
  return (
    <section aria-label={t.follow} className="flex flex-col gap-2">
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{t.follow}</span>
        <RuleSelect
          rule={known ? shot.follow : null}
          shown={known ? undefined : nameOfRule(shot.follow, named)}
          onChange={onChange}
        />
      </div>
      {shot.framed && (
        <p className="flex items-start gap-2 text-sm" aria-label={t.subjectAndReason}>
          {followed && <Letter {...followed} />}
          <span>
            {followed?.name && <b className="font-semibold">{followed.name}: </b>}
            {shot.isAnalysed || shot.framed.subjectId ? shot.framed.reason : t.notAnalysedHint}
            {shot.isAnalysed && shot.framed.certainty < 0.5 && (
              <span className="ml-1.5 inline-flex items-center gap-1 text-xs text-warn">
                <Flag className="size-3.5" aria-hidden /> {t.sure(shot.framed.certainty)}
              </span>
            )}
          </span>
        </p>
      )}
      {must && (
        <label className="flex items-center gap-2 text-xs text-soft">
          <TickBox
            checked={attention.mustHave.includes(must)}
            onChange={(isIn) => edits.send({ type: "set-attention", attention: withMust(attention, must, isIn) })}
          />
          {t.mustBeIn(followed.name ?? followed.letter)}
        </label>
      )}
      {shot.cast.length > 0 && (
        <div role="group" aria-label={t.subjects} className="flex flex-wrap gap-1.5">
          {shot.cast.map((member) => (
            <Hint key={member.track.id} text={t.followWho(member.name ?? member.letter, member.reason)}>
              <button
                type="button"
                aria-pressed={isNamed(shot.follow, member)}
                onClick={() => onChange({ kind: "track", trackId: member.track.id })}
                className="flex items-center gap-1.5 rounded-md border border-line px-1.5 py-1 text-xs hover:border-soft aria-pressed:border-accent aria-pressed:bg-accent-wash"
              >
                <span className="sr-only">{t.follow} </span>
                <Letter {...member} />
                {member.name ?? member.track.label ?? kindName(member)}
              </button>
            </Hint>
          ))}
        </div>
      )}
    </section>
  );
}

function kindName({ track }: CastMember): string {
  switch (track.kind) {
    case "face":
    case "person":
      return "person";
    case "mark":
      return t.yourMark;
    case "motion":
      return "moves";
    case "salient":
      return t.standsOut;
    case "tile":
      return "tile";
    case "object":
      return "thing";
    default:
      return assertNever(track.kind);
  }
}

interface RuleSelectProps {
  /** Null where it is not in the list, or several shots differ. */
  rule: FollowRule | null;
  /** Text shown then. */
  shown?: string;
  onChange: (rule: FollowRule) => void;
}

export function RuleSelect({ rule, shown, onChange }: RuleSelectProps) {
  return (
    <SelectMenu
      label={t.whatToFollow}
      placeholder={shown ?? t.mixed}
      items={FOLLOW_RULES}
      value={rule ? writeRule(rule) : ""}
      onChange={(value) => onChange(readRule(value))}
    />
  );
}
