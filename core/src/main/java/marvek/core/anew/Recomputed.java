package marvek.core.anew;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.entry.Carried;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.ReferenceContent;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.plan.LostBrakings;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * A reference computed anew: on another line, vehicle, sheet or ground. The driver's own points
 * move by what moves in the draft, and no braking is lost.
 *
 * @param content the reference as it would be
 * @param corners what changes in each corner and why, in driving order; those where nothing does
 *     are left out
 */
public record Recomputed(ReferenceContent content, List<Change> corners) {
  private static final double GRAIN = 0.5;
  // Metres, m/s and seconds below which nothing is said.
  private static final double MOVED = 0.1;
  private static final double QUICKER = 0.3;
  private static final double SECONDS = 0.005;

  public Recomputed {
    corners = List.copyOf(corners);
  }

  /**
   * What changes in a corner.
   *
   * @param corner id
   * @param seconds by which the computed lap is slower from before it to after it, negative where
   *     it is quicker
   * @param lost whether the lap brakes where the reference had no point for it
   * @param words why
   */
  public record Change(String corner, double seconds, boolean lost, Said words) {}

  /**
   * Computes it.
   *
   * @param was the computed that the reference was computed on
   * @param is the computed that it is to be computed on, of the same road
   * @param own the reference as the driver has it
   */
  public static Recomputed of(ComputedLap was, ComputedLap is, ReferenceContent own) {
    // What the reference lacked on its own line, and what it does not brake for at all on the new.
    List<LostBrakings.Lost> lost = new ArrayList<>(LostBrakings.in(was, own));
    LostBrakings.in(is, own).stream().filter(l -> l.later() == null).forEach(lost::add);
    List<CornerEntry> entries = new ArrayList<>();
    List<Change> changes = new ArrayList<>();
    for (CornerEntry e : own.corners()) {
      int c = is.indexOf(e.corner());
      CornerEntry drafted = Drafter.entry(is, c);
      CornerEntry carried =
          Carried.entry(
              is.road(), e, Drafter.entry(was, c), drafted, GRAIN, is.vehicle().gears(), null);
      CornerEntry entry = LostBrakings.kept(is, carried, drafted);
      entries.add(entry);
      LostBrakings.Lost missing =
          lost.stream().filter(l -> l.corner().equals(e.corner())).findFirst().orElse(null);
      change(was, is, c, missing, changes);
    }
    return new Recomputed(own.with(entries), changes);
  }

  private static void change(
      ComputedLap was, ComputedLap is, int c, LostBrakings.@Nullable Lost lost, List<Change> out) {
    Corner corner = is.corners().get(c);
    double away = 0;
    int first = is.road().index(was.lines().get(c).turnIn());
    int count =
        (int) (is.road().ahead(was.lines().get(c).turnIn(), corner.exit()) / is.road().step());
    int n = is.road().size();
    Loop loop = is.road().loop();
    for (int k = 0; k <= Math.min(count, n / 2); k++) {
      int i = loop.at(first + k);
      double by = is.path().offset()[i] - was.path().offset()[i];
      away = Math.abs(by) > Math.abs(away) ? by : away;
    }
    double before = was.lap().speed()[was.slowest(c)];
    double after = is.lap().speed()[is.slowest(c)];
    double seconds = seconds(is, c) - seconds(was, c);
    List<Said> words = new ArrayList<>();
    if (lost != null) {
      Double later = lost.later();
      Said than =
          later == null
              ? Said.of("anew.braked.not")
              : Said.of("anew.braked.later", Value.length(later));
      words.add(
          Said.of("anew.braked.by", Value.speed(lost.from()), Value.speed(lost.to()), than.in()));
    }
    if (Math.abs(away) > MOVED) {
      words.add(
          Said.of("anew.line", Value.length(away, 1), Value.choice((away > 0) == corner.left())));
    }
    if (Math.abs(after - before) > QUICKER) {
      words.add(Said.of("anew.slowest", Value.speed(after), Value.speed(before)));
    }
    if (Math.abs(seconds) > SECONDS) {
      words.add(
          Said.of("anew.seconds", Value.figure(Math.abs(seconds), 2), Value.choice(seconds < 0)));
    }
    if (!words.isEmpty()) {
      Said all = Said.of("anew.change", Said.joined(words).beginning());
      out.add(new Change(corner.id(), seconds, lost != null, all));
    }
  }

  /** Seconds of the lap from the apex of the corner before to that of the corner after. */
  private static double seconds(ComputedLap computed, int c) {
    int count = computed.corners().size();
    if (count < 3) {
      return computed.lap().lapTime();
    }
    double from = computed.corners().get((c + count - 1) % count).apex();
    double to = computed.corners().get((c + 1) % count).apexes().get(0);
    double a = computed.lap().time()[computed.road().index(from)];
    double b = computed.lap().time()[computed.road().index(to)];
    // Each stretch between two apexes is shared by two corners.
    return (b >= a ? b - a : b - a + computed.lap().lapTime()) / 2;
  }
}
