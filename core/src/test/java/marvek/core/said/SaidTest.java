package marvek.core.said;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.List;
import marvek.core.fixtures.Plain;
import org.junit.jupiter.api.Test;

/** What is stored of something said: facts, and the words of earlier versions. */
class SaidTest {
  private static final ObjectMapper JSON = new ObjectMapper();

  private static final List<Value> ALL =
      List.of(
          Value.length(12.5, 1),
          Value.speed(30),
          Value.signed(0.5, 2),
          Value.count(3),
          Value.choice(true),
          Value.own("the oak"),
          new Value.CornerName("7a", "Gantry"),
          Said.of("plan.order", Value.own("exit"), Value.own("apex")).beginning());

  @Test
  void everySortOfValueIsReadAsItWasStored() throws JsonProcessingException {
    assertThat(ALL.stream().map(Object::getClass).distinct().toList())
        .hasSameSizeAs(Value.class.getPermittedSubclasses());
    for (Value v : ALL) {
      Said said = Said.of("day.called", v);
      assertThat(JSON.readValue(JSON.writeValueAsString(said), Said.class)).isEqualTo(said);
    }
  }

  @Test
  void wordsOfAnEarlierVersionAreSaidAsTheyStand() throws JsonProcessingException {
    Said old = JSON.readValue("\"Slowest 93 km/h instead of 90 km/h.\"", Said.class);
    assertThat(Plain.words(old)).isEqualTo("Slowest 93 km/h instead of 90 km/h.");
  }
}
