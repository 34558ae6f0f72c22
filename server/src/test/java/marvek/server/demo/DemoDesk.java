package marvek.server.demo;

import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.CornerEntry;
import marvek.core.lap.Conditions;
import marvek.core.lap.Surface;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.survey.Things;
import marvek.core.survey.Zones;
import marvek.core.vehicle.VehicleClasses;
import org.springframework.core.io.ClassPathResource;

/** A demo circuit with its survey, drafted for a vehicle class, without a database. */
record DemoDesk(ComputedLap computed, Things things, List<CornerEntry> draft) {
  static DemoDesk of(String circuit, String vehicle) {
    try (var outline = new ClassPathResource("demo/" + circuit + ".csv").getInputStream();
        var found = new ClassPathResource("demo/" + circuit + "-things.json").getInputStream()) {
      CircuitReading reading =
          CircuitReader.read(
              OutlineFile.read(outline.readAllBytes()), CircuitReader.Choices.asItComes());
      Things things =
          JsonMapper.builder()
              .addModule(new JavaTimeModule())
              .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
              .build()
              .readValue(found, Things.class);
      ComputedLap computed =
          ComputedLap.compute(
              reading.centreline(),
              reading.corners(),
              Zones.ground(reading.centreline(), things.zones(), Surface.DRY),
              VehicleClasses.byId(vehicle).vehicle(),
              Conditions.dryWarm());
      return new DemoDesk(computed, things, Drafter.draft(computed, things).corners());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  CornerEntry entry(String corner) {
    return draft.get(computed.indexOf(corner));
  }
}
