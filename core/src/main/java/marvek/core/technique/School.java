package marvek.core.technique;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import marvek.core.said.Said;

/** An answer to a {@link Question}: one of the main schools. */
public enum School {
  FRONT_LOADED(Question.BRAKE_SHAPE),
  PROGRESSIVE(Question.BRAKE_SHAPE),
  DAB(Question.BRAKE_SHAPE),
  ONE_MARKER(Question.MARKERS),
  TWO_MARKERS(Question.MARKERS),
  TO_APEX(Question.RELEASE),
  EARLY_ROLL(Question.RELEASE),
  STRAIGHT(Question.RELEASE),
  LIGHT_TRAIL(Question.TRAIL),
  HEAVY_TRAIL(Question.TRAIL),
  BRAKE_FIRST(Question.HANDS),
  HANDS_FIRST(Question.HANDS),
  COAST(Question.ROLL),
  NEVER_COAST(Question.ROLL),
  LIFT_ALL(Question.LIFT),
  LIFT_SOME(Question.LIFT),
  BRAKED(Question.SLOW_WITH),
  NO_BRAKE(Question.SLOW_WITH),
  TWO_APEXES(Question.LINE),
  ONE_LATE_APEX(Question.LINE),
  TIGHT(Question.LINE),
  VERY_EDGE(Question.WIDTH),
  AS_PAYS(Question.WIDTH),
  CROSS_AT_ONCE(Question.CROSSING),
  DRIFT_OVER(Question.CROSSING),
  LATE_APEX(Question.APEX),
  EARLY_APEX(Question.APEX),
  SQUEEZED(Question.THROTTLE),
  AT_ONCE(Question.THROTTLE),
  LOWER_GEAR(Question.GEAR),
  HIGHER_GEAR(Question.GEAR),
  LIMITER(Question.SHIFT),
  SHIFT_UP(Question.SHIFT),
  HELD_FLAT(Question.CREST),
  SETTLED_BEFORE(Question.CREST),
  FRONT_SHIFTED(Question.FRONT_WHEEL),
  FRONT_EASED(Question.FRONT_WHEEL),
  GIVE_FIRST(Question.LINKED),
  GIVE_SECOND(Question.LINKED),
  GIVE_MIDDLE(Question.LINKED),
  ALL_KERBS(Question.KERBS),
  NO_KERBS(Question.KERBS),
  ALL_BEYOND(Question.BEYOND),
  NO_BEYOND(Question.BEYOND),
  NO_LIGHT(Question.LIGHT),
  SAME_HOUR(Question.LIGHT);

  private final Question question;

  School(Question question) {
    this.question = question;
  }

  /** The question that it answers. */
  public Question question() {
    return question;
  }

  /** What it is called. */
  public Said said() {
    return Said.of("school." + name());
  }

  /** With the question that it answers. */
  public Said called() {
    return Said.of("question.answered", question.said().in(), said().in());
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
