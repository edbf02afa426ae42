import { Eye } from "lucide-react";
import { Hint } from "~/components/common/button";
import { assertNever } from "~/core/assert-never";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import { type FollowRule, readRule, writeRule } from "~/core/subjects/choosing/follow-rule";
import type { CastMember } from "~/core/subjects/choosing/cast";
import { type DeskShot, followedIn } from "../state/desk-types";
import { Letter } from "../../common/letter";

/** Rules that any shot can have, as `writeRule` writes them. */
const FOLLOW_RULES: SelectItem[] = [
  { value: "auto", text: "Auto", hint: "The most important subject" },
  { value: "second", text: "The second", hint: "The second most important subject" },
  { value: "both", text: "Two together", hint: "The two most important subjects, if they fit" },
  { value: "speaker", text: "Speaker, cutting", hint: "Cuts to whoever speaks" },
  { value: "speaker-move", text: "Speaker, moving", hint: "Moves to whoever speaks" },
  { value: "everything", text: "Everything", hint: "Centred on all subjects" },
  { value: "none", text: "Nothing", hint: "Stays in the middle, or at your keys" },
];

/** Whether a member of the cast is what a rule names. */
function isNamed(rule: FollowRule, { track }: CastMember): boolean {
  if (rule.kind === "track") return rule.trackId === track.id;
  return rule.kind === "person" && rule.who === track.who;
}

/** Whom a shot follows and why, who else could be followed, and the rule. */
export function SubjectChoice({ shot, onChange }: { shot: DeskShot; onChange: (rule: FollowRule) => void }) {
  const named = shot.cast.find((member) => isNamed(shot.follow, member));
  const known = FOLLOW_RULES.some(({ value }) => value === shot.follow.kind);
  const followed = followedIn(shot);
  return (
    <section aria-label="Follow" className="flex flex-col gap-2">
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">Follow</span>
        <RuleSelect
          rule={known ? shot.follow : null}
          shown={known ? undefined : (named?.name ?? (named ? `Only ${named.letter}` : "Only one"))}
          onChange={onChange}
        />
      </div>
      {shot.framed && (
        <p className="flex items-start gap-2 text-sm" aria-label="Subject and reason">
          {followed && <Letter {...followed} />}
          <span>
            {followed?.name && <b className="font-semibold">{followed.name}: </b>}
            {shot.isAnalysed || shot.framed.subjectId
              ? shot.framed.reason
              : "not analysed yet: the window stays in the middle, or at your keys"}
            {shot.isAnalysed && shot.framed.certainty < 0.5 && (
              <span className="ml-1.5 inline-flex items-center gap-1 text-xs text-warn">
                <Eye className="size-3.5" aria-hidden /> {Math.round(100 * shot.framed.certainty)} % sure
              </span>
            )}
          </span>
        </p>
      )}
      {shot.cast.length > 0 && (
        <div role="group" aria-label="Subjects" className="flex flex-wrap gap-1.5">
          {shot.cast.map((member) => (
            <Hint key={member.track.id} text={`Follow ${member.name ?? member.letter}: ${member.reason}`}>
              <button
                type="button"
                aria-pressed={isNamed(shot.follow, member)}
                onClick={() => onChange({ kind: "track", trackId: member.track.id })}
                className="flex items-center gap-1.5 rounded-md border border-line px-1.5 py-1 text-xs hover:border-soft aria-pressed:border-accent aria-pressed:bg-accent-wash"
              >
                <span className="sr-only">Follow </span>
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
      return "your mark";
    case "motion":
      return "moves";
    case "salient":
      return "stands out";
    case "tile":
      return "tile";
    case "object":
      return "thing";
    default:
      return assertNever(track.kind);
  }
}

interface RuleSelectProps {
  /** Null where it is none of the list, or not the same everywhere. */
  rule: FollowRule | null;
  /** What is shown then. */
  shown?: string;
  onChange: (rule: FollowRule) => void;
}

export function RuleSelect({ rule, shown, onChange }: RuleSelectProps) {
  return (
    <SelectMenu
      label="What to follow"
      placeholder={shown ?? "Mixed"}
      items={FOLLOW_RULES}
      value={rule ? writeRule(rule) : ""}
      onChange={(value) => onChange(readRule(value))}
    />
  );
}
