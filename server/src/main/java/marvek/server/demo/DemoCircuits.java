package marvek.server.demo;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.Corner;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.ReferenceContent;
import marvek.core.survey.Things;
import marvek.server.circuit.LayoutVersion;
import marvek.server.circuit.Layouts;
import marvek.server.circuit.SurveyBook;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.core.io.ClassPathResource;
import org.springframework.stereotype.Component;

/** The two invented circuits of the demo, with what a survey has found on them. */
@Component
@ConditionalOnProperty("marvek.demo")
class DemoCircuits {
  static final DemoCircuit FALCOEIRA =
      new DemoCircuit(
          "Falcoeira Ring",
          "falcoeira-ring",
          39.62,
          -8.05,
          Map.ofEntries(
              Map.entry("c1", "Portão"),
              Map.entry("c2", "Lagar"),
              Map.entry("c3", "Sobreira"),
              Map.entry("c4", "Poço"),
              Map.entry("c5", "Azenha"),
              Map.entry("c6", "Comporta"),
              Map.entry("c7", "Duas Voltas"),
              Map.entry("c8", "Miradouro"),
              Map.entry("c9", "Eira"),
              Map.entry("c10", "Fonte"),
              Map.entry("c11", "Pomar"),
              Map.entry("c12", "Tanque"),
              Map.entry("c13", "Ripa"),
              Map.entry("c14", "Adega")));

  static final DemoCircuit SERRA =
      new DemoCircuit(
          "Serra Quebrada",
          "serra-quebrada",
          40.31,
          -7.66,
          Map.ofEntries(
              Map.entry("c2", "Sobreiro"),
              Map.entry("c3", "Cancela"),
              Map.entry("c6", "Carvalhal"),
              Map.entry("c7", "Ermida"),
              Map.entry("c11", "Nascente"),
              Map.entry("c12", "Bebedouro"),
              Map.entry("c13", "Muro"),
              Map.entry("c17", "Cumeada"),
              Map.entry("c19", "Cabana"),
              Map.entry("c22", "Castanheiros"),
              Map.entry("c25", "Garganta"),
              Map.entry("c26", "Casa Alta"),
              Map.entry("c27", "Arcos"),
              Map.entry("c33", "Ralo"),
              Map.entry("c34", "Aldeia")));

  private final Layouts layouts;
  private final SurveyBook book;
  private final ObjectMapper json;

  DemoCircuits(Layouts layouts, SurveyBook book, ObjectMapper json) {
    this.layouts = layouts;
    this.book = book;
    this.json = json;
  }

  /**
   * A circuit of the demo.
   *
   * @param file name of its files without what follows
   * @param latitude where it is said to lie, degrees
   * @param longitude where it is said to lie, degrees
   * @param names of corners by id
   */
  record DemoCircuit(
      String name, String file, double latitude, double longitude, Map<String, String> names) {}

  LayoutVersion bring(UUID driver, DemoCircuit circuit) {
    byte[] outline = bytes(circuit.file() + ".csv");
    LayoutVersion layout =
        layouts.save(
            driver,
            circuit.name(),
            "Full",
            ZoneId.of("Europe/Lisbon"),
            CircuitReader.read(OutlineFile.read(outline), CircuitReader.Choices.asItComes()),
            circuit.file() + ".csv",
            outline);
    layouts.place(driver, layout.id(), circuit.latitude(), circuit.longitude(), layout.altitude());
    List<Corner> named =
        layout.corners().stream()
            .map(c -> c.named(circuit.names().getOrDefault(c.id(), "")))
            .toList();
    return book.apply(driver, layout.id(), change(Things.none(), named, layout.cornersVersion()));
  }

  void survey(UUID driver, LayoutVersion layout, DemoCircuit circuit) {
    try {
      Things things = json.readValue(bytes(circuit.file() + "-things.json"), Things.class);
      book.apply(driver, layout.id(), change(things, null, null));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** A corner with all that an entry can hold, and the days beside it. */
  ReferenceContent example(DemoCircuit circuit) {
    try {
      return json.readValue(bytes(circuit.file() + "-example.json"), ReferenceContent.class);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static SurveyBook.SurveyChange change(
      Things put, @Nullable List<Corner> corners, @Nullable Integer version) {
    return new SurveyBook.SurveyChange(
        UUID.randomUUID(), put, List.of(), Map.of(), corners, version);
  }

  private static byte[] bytes(String name) {
    try (var in = new ClassPathResource("demo/" + name).getInputStream()) {
      return in.readAllBytes();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
