package marvek.core.words;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.entry.Wording;
import marvek.core.marker.Tie;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;

/**
 * Says a corner in plain words, in the driver's units, at four lengths: for the pocket, in one
 * line, in full, and to be said aloud.
 */
public final class Sentence {
  private Sentence() {}

  /**
   * Own words in place of the computed ones, and whether they are due for another look.
   *
   * @param full everything the entry holds
   * @param line the corner in one line
   * @param pocket marker, gear and one word
   * @param spoken what is done, in words to be said aloud
   * @param own the driver's own line, or empty
   * @param due whether the points have changed since the driver wrote it
   * @param plain the line in metres and km/h, which own words are kept with
   * @param braked what the corner is called whose brakes are still on here, or empty
   */
  public record Words(
      String full,
      String line,
      String pocket,
      String spoken,
      String own,
      boolean due,
      String plain,
      String braked) {}

  /** A corner at all four lengths. */
  public static Words words(Corner corner, CornerEntry e, Speech speech) {
    Wording own = e.wording();
    String plain = line(corner, e, Speech.PLAIN.on(speech.lap()));
    return new Words(
        full(corner, e, speech),
        line(corner, e, speech),
        pocket(corner, e, speech),
        spoken(corner, e, speech),
        own == null ? "" : own.text(),
        own != null && !own.about().equals(plain),
        plain,
        new CornerWords(corner, e, speech).braked().map(speech::corner).orElse(""));
  }

  /** The corner in one line: marker, effort, gears, hands, release, apex, speed and throttle. */
  public static String line(Corner corner, CornerEntry e, Speech speech) {
    return line(corner, e, speech, Speaker.of(speech));
  }

  static String line(Corner corner, CornerEntry e, Speech speech, Speaker speaker) {
    CornerWords words = new CornerWords(corner, e, speech);
    return Punctuation.sentence(
            words.own().isEmpty()
                ? speaker.say(points(words, e))
                : inOrder(words, e, speaker, false))
        + withNote(e);
  }

  /** A corner of which nothing is written but its points. */
  private static List<Said> points(CornerWords words, CornerEntry e) {
    boolean brakes = e.slowing() == Slowing.BRAKE;
    List<Said> parts = new ArrayList<>();
    switch (e.slowing()) {
      case FLAT -> parts.add(words.flat());
      case LIFT -> parts.add(words.lifted());
      case BRAKE -> {
        parts.add(words.brakingTo());
        parts.add(words.gears());
      }
    }
    words.hands().ifPresent(parts::add);
    if (brakes) {
      words.release().ifPresent(parts::add);
    }
    parts.add(words.apex());
    if (brakes) {
      parts.add(words.slowest());
    }
    parts.addAll(words.again());
    words.throttle().ifPresent(parts::add);
    return parts;
  }

  /** Everything done in a corner in the order in which it is driven. */
  private static List<String> inOrder(
      CornerWords words, CornerEntry e, Speaker speaker, boolean withoutSpeeds) {
    List<Clause> all = new ArrayList<>();
    if (e.slowing() == Slowing.BRAKE) {
      double at = words.toBrake();
      all.add(new Clause(at, withoutSpeeds ? words.braking() : words.brakingTo()));
      all.add(new Clause(at, words.gears()));
      e.station(PointKind.RELEASE)
          .ifPresent(
              r -> words.release().ifPresent(w -> all.add(new Clause(words.pastApex(r), w))));
    } else if (words.own().stream().noneMatch(a -> a.kind() == ActionKind.LIFT)) {
      Said how = e.slowing() == Slowing.FLAT ? words.flat() : words.lift();
      all.add(new Clause(Double.NEGATIVE_INFINITY, how));
    }
    if (!withoutSpeeds) {
      e.station(PointKind.TURN_IN)
          .ifPresent(t -> words.hands().ifPresent(w -> all.add(new Clause(words.pastApex(t), w))));
    }
    boolean speed = !withoutSpeeds && e.slowing() != Slowing.FLAT;
    Said apex = words.apex();
    all.add(
        new Clause(
            0,
            speed
                ? Said.of("entry.apex.slowest", apex.in(), Value.speed(e.minimumSpeed()))
                : apex));
    List<Said> again = words.again();
    for (int k = 0; k < again.size(); k++) {
      all.add(new Clause(words.pastApex(e.again().get(k).station()), again.get(k)));
    }
    if (e.slowing() != Slowing.FLAT) {
      all.addAll(words.throttleInPlace("entry.throttle.full"));
    }
    all.addAll(words.ownInPlace());
    String apexWord = speaker.say(Said.of("entry.apex.word"));
    List<String> out = new ArrayList<>();
    boolean named = false;
    for (Clause c : all.stream().sorted(Comparator.comparingDouble(Clause::past)).toList()) {
      String said = speaker.say(named ? c.words() : c.first());
      named |= said.contains(apexWord);
      out.add(said);
    }
    return out;
  }

  /** What is done in the corner, without its speeds, as a voice says it. */
  public static String spoken(Corner corner, CornerEntry e, Speech speech) {
    return spoken(corner, e, speech, Speaker.of(speech));
  }

  static String spoken(Corner corner, CornerEntry e, Speech speech, Speaker speaker) {
    CornerWords words = new CornerWords(corner, e, speech);
    List<String> parts = new ArrayList<>();
    parts.add(aloud(corner, speech));
    if (!words.own().isEmpty()) {
      parts.addAll(inOrder(words, e, speaker, true));
      return Punctuation.sentenceCase(Spoken.of(Punctuation.sentence(parts)));
    }
    List<Said> said = new ArrayList<>();
    switch (e.slowing()) {
      case FLAT -> said.add(words.flat());
      case LIFT -> said.add(words.lift());
      case BRAKE -> {
        said.add(words.braking());
        said.add(words.gears());
        words.release().ifPresent(said::add);
      }
    }
    said.add(words.apex());
    said.addAll(words.again());
    words.throttle().ifPresent(said::add);
    parts.addAll(speaker.say(said));
    return Punctuation.sentenceCase(Spoken.of(Punctuation.sentence(parts)));
  }

  /** Corner, marker and gear, said aloud: "Five, at the one hundred fifty board, second." */
  static String brief(Corner corner, CornerEntry e, Speech speech) {
    CornerWords words = new CornerWords(corner, e, speech);
    Speaker speaker = Speaker.of(speech);
    List<Said> parts = new ArrayList<>();
    parts.add(
        switch (e.slowing()) {
          case FLAT -> Said.of("entry.flat_only");
          case LIFT -> words.liftInShort();
          case BRAKE ->
              e.point(PointKind.BRAKE).map(words::where).orElse(Said.of("entry.brake.bare"));
        });
    if (e.slowing() != Slowing.FLAT) {
      parts.add(CornerWords.gear(e.gear()));
    }
    String said = speaker.say(Said.listed(parts));
    return Punctuation.sentenceCase(
        Punctuation.stopped(Spoken.of(aloud(corner, speech) + ", " + said)));
  }

  private static String aloud(Corner corner, Speech speech) {
    String name = corner.name().strip();
    return name.isEmpty() || speech.call() == Speech.Call.NUMBERS ? corner.number() : name;
  }

  private static String withNote(CornerEntry e) {
    return e.note().isBlank()
        ? ""
        : " " + Punctuation.stopped(Punctuation.sentenceCase(e.note().strip()));
  }

  /** Everything that the entry holds, phase by phase. */
  public static String full(Corner corner, CornerEntry e, Speech speech) {
    return full(corner, e, speech, Speaker.of(speech));
  }

  static String full(Corner corner, CornerEntry e, Speech speech, Speaker speaker) {
    return new FullWords(corner, e, speech, speaker).tell() + withNote(e);
  }

  /** Marker, gear and one word, for a pocket card. */
  public static String pocket(Corner corner, CornerEntry e, Speech speech) {
    return pocket(corner, e, speech, Speaker.of(speech));
  }

  static String pocket(Corner corner, CornerEntry e, Speech speech, Speaker speaker) {
    CornerWords words = new CornerWords(corner, e, speech);
    String marker =
        switch (e.slowing()) {
          case FLAT -> speaker.say(Said.of("entry.flat_only"));
          case LIFT -> speaker.say(words.liftInShort());
          case BRAKE ->
              e.point(PointKind.BRAKE)
                  .map(
                      p ->
                          words
                              .cue(p)
                              .map(speaker::say)
                              .orElseGet(
                                  () -> {
                                    Tie tie = p.tie();
                                    return tie == null
                                        ? speech.units().length(p.station())
                                        : Punctuation.brief(tie, speech.units());
                                  }))
                  .orElseGet(() -> speaker.say(Said.of("entry.brake.bare")));
        };
    return marker + " · " + e.gear() + " · " + speaker.say(words.apexInShort());
  }
}
