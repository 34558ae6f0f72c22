package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * What the temperatures across a tread say of the set-up. A wheel that leans is hotter on its inner
 * side, and should be a little; a tyre that is too full is hotter in the middle, one that is too
 * soft on its sides (common practice, no source). What it says is what to try, a step at a time,
 * within what maker and organiser allow.
 *
 * @param wheel 0 front left, 1 front right, 2 rear left, 3 rear right; of a motorcycle 0 front, 1
 *     rear
 * @param outer °C on the outer side, of a motorcycle on the left
 * @param middle °C
 * @param inner °C on the inner side, of a motorcycle on the right
 * @param words what to try, weightiest first; never empty
 */
public record Tread(int wheel, double outer, double middle, double inner, List<Said> words) {
  /** °C by which the inner side may be hotter at most; cooler than the outer it must not be. */
  public static final double LEANS = 15;

  /** °C by which the middle may differ from the mean of both sides. */
  public static final double EVEN = 5;

  /** Readings of a wheel. */
  private static final int ACROSS = 3;

  public Tread {
    words = List.copyOf(words);
  }

  /**
   * Of every wheel that was read all across.
   *
   * @param count of the vehicle's wheels
   */
  public static List<Tread> of(SessionTyres tyres, int count) {
    List<@Nullable Double> read = tyres.tread();
    List<Tread> out = new ArrayList<>();
    for (int w = 0; read != null && w < count; w++) {
      Double outer = SessionTyres.at(read, ACROSS * w);
      Double middle = SessionTyres.at(read, ACROSS * w + 1);
      Double inner = SessionTyres.at(read, ACROSS * w + 2);
      if (outer != null && middle != null && inner != null) {
        out.add(new Tread(w, outer, middle, inner, words(outer, middle, inner, count > 2)));
      }
    }
    return List.copyOf(out);
  }

  /**
   * In words.
   *
   * @param leans whether the wheel has a camber of its own; a motorcycle's leans with it
   */
  private static List<Said> words(double outer, double middle, double inner, boolean leans) {
    List<Said> out = new ArrayList<>();
    double more = inner - outer;
    if (leans && (more > LEANS || more < 0)) {
      out.add(Said.of("tread.camber", Value.choice(more < 0), Value.figure(Math.abs(more), 0)));
    }
    double hump = middle - (inner + outer) / 2;
    if (Math.abs(hump) > EVEN) {
      out.add(Said.of("tread.pressure", Value.choice(hump > 0), Value.figure(Math.abs(hump), 0)));
    }
    return out.isEmpty() ? List.of(Said.of("tread.even")) : out;
  }
}
