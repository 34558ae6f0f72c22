package marvek.core.technique;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** An answer to a {@link Question}: one of the main schools. */
public enum School {
  FRONT_LOADED(Question.BRAKE_SHAPE, "hard at once, then bled off"),
  PROGRESSIVE(Question.BRAKE_SHAPE, "lighter and longer"),
  DAB(Question.BRAKE_SHAPE, "a dab before the turn"),
  TO_APEX(Question.RELEASE, "bled to the apex"),
  EARLY_ROLL(Question.RELEASE, "off early, then roll"),
  STRAIGHT(Question.RELEASE, "off before the hands move"),
  LIGHT_TRAIL(Question.TRAIL, "a little"),
  HEAVY_TRAIL(Question.TRAIL, "a lot"),
  COAST(Question.ROLL, "roll, to let it turn"),
  NEVER_COAST(Question.ROLL, "a little throttle"),
  LIFT_ALL(Question.LIFT, "to nothing"),
  LIFT_SOME(Question.LIFT, "keep some"),
  BRAKED(Question.SLOW_WITH, "the brake"),
  NO_BRAKE(Question.SLOW_WITH, "a longer lift, no brake"),
  TWO_APEXES(Question.LINE, "two apexes, wide between"),
  ONE_LATE_APEX(Question.LINE, "one late apex"),
  TIGHT(Question.LINE, "tight all round"),
  LATE_APEX(Question.APEX, "late, for the exit"),
  EARLY_APEX(Question.APEX, "earlier, to carry speed"),
  SQUEEZED(Question.THROTTLE, "squeezed open"),
  AT_ONCE(Question.THROTTLE, "at once, where all of it is borne"),
  LOWER_GEAR(Question.GEAR, "the lower one, to help it turn"),
  HIGHER_GEAR(Question.GEAR, "the higher one, to keep it calm"),
  LIMITER(Question.SHIFT, "hold it to the limiter"),
  SHIFT_UP(Question.SHIFT, "shift up"),
  GIVE_FIRST(Question.LINKED, "give away the first"),
  GIVE_SECOND(Question.LINKED, "give away the last"),
  GIVE_MIDDLE(Question.LINKED, "give away the middle"),
  ALL_KERBS(Question.KERBS, "use all that pays"),
  NO_KERBS(Question.KERBS, "keep the tyres on the tarmac"),
  NO_LIGHT(Question.LIGHT, "never"),
  SAME_HOUR(Question.LIGHT, "at the same hour");

  private final Question question;
  private final String words;

  School(Question question, String words) {
    this.question = question;
    this.words = words;
  }

  public Question question() {
    return question;
  }

  public String words() {
    return words;
  }

  /** With the question that it answers. */
  public String called() {
    return question.words() + ": " + words;
  }

  /** The schools that answer a question. */
  public static List<School> answering(Question question) {
    return Arrays.stream(values()).filter(s -> s.question == question).toList();
  }

  /** The one chosen for a question, if any. */
  public static Optional<School> chosen(List<School> schools, Question question) {
    return schools.stream().filter(s -> s.question == question).findFirst();
  }

  /** The choices with this one in place of any other answer to its question. */
  public List<School> in(List<School> schools) {
    List<School> out = new ArrayList<>(schools);
    out.removeIf(s -> s.question == question);
    out.add(this);
    out.sort(null);
    return List.copyOf(out);
  }
}
