package marvek.core.day;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.DayKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Variant;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/** The days of a reference, and on which of them laps were driven. */
public final class RunDays {
  /** Id of the reference's own day. */
  public static final String OWN = "";

  /** What is asked for to see laps that fit no day. */
  public static final String NONE = "none";

  private static final Said OWN_CALLED = Said.of("day.dry");

  private final List<Variant> variants;
  private final List<DayFit.Candidate> days;

  private RunDays(List<Variant> variants) {
    this.variants = variants;
    days = new ArrayList<>();
    days.add(new DayFit.Candidate(OWN, OWN_CALLED, 1));
    variants.forEach(v -> days.add(new DayFit.Candidate(v.id(), v.called(), v.day().grip())));
  }

  /** Of a reference: its own day and those that differ from it. */
  public static RunDays of(ReferenceContent content) {
    return new RunDays(content.variants());
  }

  /**
   * Laps of one day.
   *
   * @param day id of the day, empty for the reference's own; null where none fits
   * @param called the day in the driver's words; empty where none fits
   * @param laps ids
   * @param grip that they use across, against the reference's computed lap; null where not told
   * @param words why that day
   * @param sure whether proposals may rest on it
   * @param steady whether the laps tell a grip and keep to it
   */
  public record PartLine(
      @Nullable String day,
      Said called,
      List<String> laps,
      @Nullable Double grip,
      Said words,
      boolean sure,
      boolean steady,
      boolean said) {
    public PartLine {
      laps = List.copyOf(laps);
    }

    /** Whether a lap is one of them. */
    public boolean has(String lap) {
      return laps.contains(lap);
    }

    /** Whether they were driven on a day; null and {@link #NONE} ask for laps that fit none. */
    public boolean on(@Nullable String other) {
      return day == null ? other == null || other.equals(NONE) : day.equals(other);
    }
  }

  /** Entries as they are to be driven on a day. */
  public static List<CornerEntry> on(
      ComputedLap base, ComputedLap then, Variant day, List<CornerEntry> entries) {
    return entries.stream().map(e -> Variants.adjust(base, then, day, e).entry()).toList();
  }

  /**
   * A day that a driver can name for a run.
   *
   * @param word id, or kind of a day that the reference does not have
   * @param there whether the reference has it
   */
  public record DayChoice(String word, Said called, boolean there) {}

  /** Days that a driver can name for a run: those that there are, and kinds that could be added. */
  public List<DayChoice> choices() {
    List<DayChoice> out = new ArrayList<>();
    days.forEach(d -> out.add(new DayChoice(d.id(), d.called(), true)));
    for (DayKind k : DayKind.values()) {
      boolean there = variants.stream().anyMatch(v -> v.kind() == k);
      if (!there && k.usual().grip() < 1) {
        out.add(new DayChoice(k.name(), k.said(), false));
      }
    }
    return out;
  }

  /** A day by its id; nothing for the reference's own. */
  public Optional<Variant> variant(@Nullable String day) {
    return variants.stream().filter(v -> v.id().equals(day)).findFirst();
  }

  /** What a day is called; nothing for one that the reference does not have. */
  public Optional<Said> called(@Nullable String day) {
    return days.stream().filter(d -> d.id().equals(day)).map(DayFit.Candidate::called).findFirst();
  }

  /**
   * What the driver's word names: the id of a day of the reference, or the word itself where there
   * is none; null without a word.
   */
  public @Nullable String named(@Nullable String word) {
    if (word == null || days.stream().anyMatch(d -> d.id().equals(word))) {
      return word;
    }
    return variants.stream()
        .filter(v -> v.kind().name().equals(word))
        .map(Variant::id)
        .findFirst()
        .orElse(word);
  }

  /** The kind of a day that the driver named and the reference does not have. */
  public static Optional<DayKind> kind(@Nullable String word) {
    return Arrays.stream(DayKind.values()).filter(k -> k.name().equals(word)).findFirst();
  }

  private DayFit fit(@Nullable String word, List<DayFit.Lap> laps) {
    Said called =
        kind(word).map(k -> Said.of("day.quoted", k.said().in())).orElse(Said.of("day.gone"));
    return DayFit.of(days, laps, named(word), called);
  }

  /** The day that one lap was driven on, empty where none fits. */
  public Optional<String> day(@Nullable String word, double grip) {
    return fit(word, List.of(new DayFit.Lap(OWN, grip))).parts().stream()
        .flatMap(p -> Optional.ofNullable(p.day()).stream())
        .map(DayFit.Candidate::id)
        .findFirst();
  }

  /**
   * The laps of a run that count, by day.
   *
   * @param word what the driver said of the run; null where nothing
   * @param laps in the order driven
   */
  public List<PartLine> parts(@Nullable String word, List<DayFit.Lap> laps) {
    if (laps.isEmpty()) {
      return List.of();
    }
    DayFit fit = fit(word, laps);
    return fit.parts().stream()
        .map(
            p -> {
              DayFit.Candidate day = p.day();
              return new PartLine(
                  day == null ? null : day.id(),
                  day == null ? Said.NOTHING : day.called(),
                  p.laps(),
                  Double.isNaN(p.grip()) ? null : p.grip(),
                  p.words(),
                  p.sure(),
                  p.steady(),
                  fit.said());
            })
        .toList();
  }
}
