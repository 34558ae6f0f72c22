package marvek.core.circuit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** Corners as the driver arranges them: checked, and measured anew on the road. */
public final class CornerBook {
  private static final Pattern ID = Pattern.compile("[A-Za-z0-9-]{1,20}");
  private static final int MOST = 200;
  private static final double SHORTEST = 4;
  // Corners whose measured ends overlap by a little are still two.
  private static final double OVERLAP = 2;
  private static final double APEX_MOVED = 3;
  // What turns less may be the scatter of the points that the road was read from.
  private static final double CLEARLY = Math.toRadians(20);

  private CornerBook() {}

  /**
   * The corners in driving order, with side, radius, angle and kind measured between entry and exit
   * and, where the list gives none, an apex at the tightest place. Names, numbers, groups and what
   * counts are taken as they stand.
   *
   * @throws Refusal naming the corner that is wrong
   */
  public static List<Corner> settled(Centreline road, List<Corner> given) {
    if (given.stream().allMatch(Corner::uncounted)) {
      throw Refusal.of("refusal.circuit.no_corner_would_left").at("corners");
    }
    if (given.size() > MOST) {
      throw Refusal.of(
              "refusal.circuit.corners_too_many",
              Value.figure(given.size(), 0),
              Value.figure(MOST, 0))
          .at("corners");
    }
    Set<String> ids = new LinkedHashSet<>();
    Set<String> numbers = new LinkedHashSet<>();
    List<Corner> out = new ArrayList<>();
    for (Corner c : given) {
      Said where = Where.corner(c.number());
      if (!ID.matcher(c.id()).matches() || !ids.add(c.id())) {
        throw Refusal.of("refusal.circuit.two_corners_one_id").at(where);
      }
      words(c, where);
      if (!c.uncounted() && !numbers.add(c.number().strip())) {
        throw Refusal.of("refusal.circuit.two_corners_numbered", Value.own(c.number())).at(where);
      }
      out.add(measured(road, c, where));
    }
    out.sort((a, b) -> Double.compare(a.apexes().get(0), b.apexes().get(0)));
    for (int i = 0; i < out.size() && out.size() > 1; i++) {
      Corner a = out.get(i);
      Corner b = out.get((i + 1) % out.size());
      if (road.apart(a.exit(), b.entry()) < -OVERLAP) {
        throw Refusal.of(
                "refusal.circuit.t_starts_before_t", Value.own(b.number()), Value.own(a.number()))
            .at(Where.corner(b.number()));
      }
    }
    return List.copyOf(out);
  }

  /**
   * A road's corners with what is found on it today beside them.
   *
   * @param corners the ones there, with their ids, numbers, names and ends, and the apexes found
   *     today; and the ones added
   * @param added corners where there was none
   * @param apexes ids of corners whose apex lies elsewhere
   */
  public record Anew(List<Corner> corners, List<Corner> added, List<String> apexes) {}

  /** Finds the corners again beside the ones there, which stay. */
  public static Anew anew(Centreline road, List<Corner> there) {
    List<Corner> all = new ArrayList<>(there);
    List<Corner> added = new ArrayList<>();
    List<String> apexes = new ArrayList<>();
    List<Corner> today = CornerFinder.find(road);
    for (Corner found : today) {
      List<Corner> shared = there.stream().filter(c -> overlap(road, c, found) > OVERLAP).toList();
      if (shared.isEmpty() && found.angle() >= CLEARLY) {
        Corner fresh = fresh(road, all, found);
        all.add(fresh);
        added.add(fresh);
      } else if (shared.size() == 1) {
        Corner c = shared.get(0);
        boolean one = c.apexes().size() == 1 && found.apexes().size() == 1;
        boolean within = road.ahead(c.entry(), found.apex()) <= road.ahead(c.entry(), c.exit());
        // One that the driver has merged of two keeps its apex.
        boolean alone = today.stream().filter(f -> overlap(road, c, f) > OVERLAP).count() == 1;
        if (alone && one && within && Math.abs(road.apart(c.apex(), found.apex())) > APEX_MOVED) {
          apexes.add(c.id());
          all.set(all.indexOf(c), c.apexed(found.apexes()));
        }
      }
    }
    try {
      return new Anew(settled(road, all), List.copyOf(added), List.copyOf(apexes));
    } catch (Refusal p) {
      // What does not go with the corners as the driver has them is not offered.
      return new Anew(there, List.of(), List.of());
    }
  }

  /** Metres that two corners share, or less than nothing. */
  private static double overlap(Centreline road, Corner a, Corner b) {
    double begins = road.apart(a.entry(), b.entry()) > 0 ? b.entry() : a.entry();
    double ends = road.apart(a.exit(), b.exit()) > 0 ? a.exit() : b.exit();
    return road.apart(begins, ends);
  }

  /** Numbered after the one before it: 4A behind 4. */
  private static Corner fresh(Centreline road, List<Corner> all, Corner found) {
    String id = free(all.stream().map(Corner::id).toList(), "c", all.size() + 1);
    String before =
        all.stream()
            .filter(c -> !c.uncounted() && c.number().length() < 5)
            .min(Comparator.comparingDouble(c -> road.ahead(c.apex(), found.apex())))
            .map(Corner::number)
            .orElse("0");
    List<String> numbers = all.stream().map(Corner::number).toList();
    for (char letter = 'A'; letter <= 'Z'; letter++) {
      if (!numbers.contains(before + letter)) {
        return found.numbered(id, before + letter);
      }
    }
    return found.numbered(id, free(numbers, "", all.size() + 1));
  }

  private static String free(List<String> taken, String before, int from) {
    int k = from;
    while (taken.contains(before + k)) {
      k++;
    }
    return before + k;
  }

  private static void words(Corner c, Said where) {
    if (!c.uncounted() && (c.number().isBlank() || c.number().length() > 6)) {
      throw Refusal.of("refusal.circuit.corners_number_characters").at(where);
    }
    if (c.name().length() > 60) {
      throw Refusal.of("refusal.circuit.name_too_long").at(where);
    }
    if (c.complex() < 0 || c.complex() > MOST) {
      throw Refusal.of("refusal.circuit.no_group").at(where);
    }
  }

  private static Corner measured(Centreline road, Corner c, Said where) {
    double length = road.length();
    boolean inside = c.entry() >= 0 && c.entry() < length && c.exit() >= 0 && c.exit() < length;
    double span = inside ? road.ahead(c.entry(), c.exit()) : 0;
    if (!inside || span < SHORTEST || span > length / 2) {
      throw Refusal.of("refusal.circuit.corners_ends_make_no").at(where);
    }
    int from = road.index(c.entry());
    int count = (int) Math.round(span / road.step());
    double angle = 0;
    double tightest = 0;
    int at = from;
    for (int k = 0; k <= count; k++) {
      double kappa = road.curvature()[(from + k) % road.size()];
      angle += kappa * road.step();
      if (Math.abs(kappa) > tightest) {
        tightest = Math.abs(kappa);
        at = from + k;
      }
    }
    List<Double> apexes = c.apexes();
    if (apexes.isEmpty()) {
      apexes = List.of((at % road.size()) * road.step());
    }
    if (apexes.size() > 2) {
      throw Refusal.of("refusal.circuit.corner_one_apex_two").at(where);
    }
    for (double apex : apexes) {
      if (!(apex >= 0 && apex < length && road.ahead(c.entry(), apex) <= span)) {
        throw Refusal.of("refusal.circuit.apex_lies_outside_corner").at(where);
      }
    }
    if (apexes.size() == 2 && road.apart(apexes.get(0), apexes.get(1)) <= 0) {
      throw Refusal.of("refusal.circuit.two_apexes_wrong_order").at(where);
    }
    int[] indices = {from, from + count};
    double radius = 1 / Math.max(CornerFinder.evenPart(road, indices).bend(), 1e-4);
    CornerKind kind =
        c.kind() == CornerKind.CHICANE && c.complex() > 0
            ? CornerKind.CHICANE
            : CornerFinder.kind(radius, Math.abs(angle), apexes.size());
    return new Corner(
        c.id(),
        c.number().strip(),
        c.name().strip(),
        angle > 0,
        c.entry(),
        apexes,
        c.exit(),
        radius,
        Math.abs(angle),
        kind,
        c.complex(),
        c.uncounted(),
        c.doubt());
  }
}
