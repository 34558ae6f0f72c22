package marvek.core.circuit;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Random;

/**
 * Closed roads that nobody drew: the distance from a middle swings several times over a round, with
 * widths and heights that swing too. The same seed gives the same road.
 */
public final class RandomRoads {
  private RandomRoads() {}

  /**
   * A road.
   *
   * @param radius metres of the round that the swings are added to: the lap is seven times that or
   *     more
   */
  public static CircuitReading of(long seed, double radius) {
    Random random = new Random(seed);
    int swings = 3 + random.nextInt(6);
    double[] size = new double[swings];
    double[] phase = new double[swings];
    for (int k = 0; k < swings; k++) {
      size[k] = radius * (0.05 + 0.22 * random.nextDouble()) / Math.sqrt(k + 1);
      phase[k] = 2 * Math.PI * random.nextDouble();
    }
    int points = (int) (2 * Math.PI * radius / 4);
    StringBuilder text = new StringBuilder("x_m,y_m,w_right_m,w_left_m,z_m\n");
    for (int i = 0; i < points; i++) {
      double turn = 2 * Math.PI * i / points;
      double from = radius;
      for (int k = 0; k < swings; k++) {
        from += size[k] * Math.sin((k + 2) * turn + phase[k]);
      }
      double right = 5.5 + 1.5 * Math.sin(3 * turn + phase[0]);
      double height = 15 * Math.sin(2 * turn + phase[1]) + 5 * Math.sin(5 * turn);
      text.append(
          String.format(
              Locale.ROOT,
              "%.3f,%.3f,%.2f,%.2f,%.2f%n",
              from * Math.cos(turn),
              from * Math.sin(turn),
              right,
              11 - right,
              height));
    }
    return CircuitReader.read(
        OutlineFile.read(text.toString().getBytes(StandardCharsets.UTF_8)),
        CircuitReader.Choices.asItComes());
  }
}
