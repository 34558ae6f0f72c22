package marvek.server.session;

import com.lowagie.text.Chunk;
import com.lowagie.text.Document;
import com.lowagie.text.Font;
import com.lowagie.text.PageSize;
import com.lowagie.text.Paragraph;
import com.lowagie.text.Phrase;
import com.lowagie.text.Rectangle;
import com.lowagie.text.pdf.PdfPCell;
import com.lowagie.text.pdf.PdfPTable;
import com.lowagie.text.pdf.PdfWriter;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.session.PlannedLine;
import marvek.core.session.Timing;
import marvek.core.words.Speaker;
import marvek.server.export.Paper;

/** The brief on paper: one page wherever it can be read there, black on white. */
final class BriefPdf {
  /** Points of type, from what is read at a glance to what is still read (common practice). */
  private static final float LARGEST = 11;

  private static final float LEAST = 6;
  private static final float STEP = 0.5f;

  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("EEEE d MMMM HH:mm", Locale.ENGLISH);
  private static final DateTimeFormatter CLOCK =
      DateTimeFormatter.ofPattern("HH:mm", Locale.ENGLISH);

  private BriefPdf() {}

  /** Paper that a printer at a circuit has. */
  enum Size {
    A4(PageSize.A4, 36),
    A5(PageSize.A5, 22);

    private final Rectangle sheet;
    private final float margin;

    Size(Rectangle sheet, float margin) {
      this.sheet = sheet;
      this.margin = margin;
    }
  }

  /** In the largest type in which all of it is on one page; in the least on as many as it takes. */
  static byte[] of(PlannedSession session, Speaker speaker, Size size) throws IOException {
    float type = LARGEST;
    while (true) {
      ByteArrayOutputStream out = new ByteArrayOutputStream();
      int pages = write(session, speaker, size, type, out);
      if (pages == 1 || type <= LEAST) {
        return out.toByteArray();
      }
      type -= STEP;
    }
  }

  private static int write(
      PlannedSession session, Speaker speaker, Size size, float type, ByteArrayOutputStream out)
      throws IOException {
    Document document =
        new Document(size.sheet, size.margin, size.margin, size.margin, size.margin);
    PdfWriter writer = PdfWriter.getInstance(document, out);
    document.open();
    Font plain = Paper.font(type, Font.NORMAL);
    Font bold = Paper.font(type, Font.BOLD);
    Font head = Paper.font(type * 1.15f, Font.BOLD);
    document.add(
        new Paragraph(session.line().session().name(), Paper.font(type * 1.5f, Font.BOLD)));
    for (Said said : head(session)) {
      if (said.equals(Said.NOTHING)) {
        continue;
      }
      document.add(new Paragraph(speaker.sentence(said), plain));
    }
    for (BriefSheet.BriefPart part : session.brief()) {
      Paragraph title = new Paragraph(speaker.say(part.head()), head);
      title.setSpacingBefore(type * 0.5f);
      title.setSpacingAfter(type * 0.15f);
      document.add(title);
      if (part.kind() == BriefSheet.BriefPartKind.MARKERS) {
        document.add(markers(session, speaker, plain, bold));
      }
      for (BriefSheet.BriefLine line : part.lines()) {
        Paragraph words = new Paragraph();
        words.setLeading(type * 1.25f);
        if (line.called() != null) {
          words.add(new Chunk(line.called() + "  ", bold));
        }
        words.add(new Chunk(speaker.sentence(line.words()), plain));
        document.add(words);
      }
    }
    document.close();
    return writer.getPageNumber() - 1;
  }

  private static List<Said> head(PlannedSession session) {
    Planner.SessionPlan plan = java.util.Objects.requireNonNull(session.plan());
    Timing timing = session.line().session().timing();
    ZoneId zone = timing.start().zone();
    boolean announced = timing.state() == Timing.State.ON && timing.later() == 0;
    return List.of(
        Said.of(
            "page.when_and_where",
            Value.own(at(session.line().begins(), zone, DAY)),
            Value.own(plan.circuit()),
            Value.own(plan.vehicle())),
        // A paper that hangs on the wall says that it is off.
        announced
            ? Said.NOTHING
            : Said.of(
                "page.became",
                Value.choice(timing.state()),
                Value.count(Math.abs(timing.later())),
                Value.choice(timing.later() < 0)),
        Said.of(
            "page.as_of",
            Value.own(at(plan.asOf(), zone, CLOCK)),
            Value.count(plan.revision()),
            Value.choice(plan.changed())),
        Said.of("page.planned_for", session.conditions().in()),
        session.line().clocks());
  }

  private static String at(Instant when, ZoneId zone, DateTimeFormatter as) {
    return as.format(when.atZone(zone));
  }

  private static PdfPTable markers(PlannedSession session, Speaker speaker, Font plain, Font bold) {
    Planner.SessionPlan plan = java.util.Objects.requireNonNull(session.plan());
    PdfPTable table = new PdfPTable(new float[] {2, 10, 1, 1.6f});
    table.setWidthPercentage(100);
    table.setHeaderRows(1);
    for (String column : List.of("corner", "how", "gear", "slowest")) {
      table.addCell(cell(speaker.say(Said.of("page.column", new Value.Choice(column))), bold));
    }
    for (PlannedLine line : plan.corners()) {
      Integer gear = line.today().entry().gear();
      table.addCell(cell(line.called(), bold));
      table.addCell(cell(line.words().line(), plain));
      table.addCell(cell(gear == null ? "" : String.valueOf(gear), plain));
      table.addCell(
          cell(speaker.say(Said.of("page.one_speed", Value.speed(line.today().slowest()))), plain));
    }
    return table;
  }

  private static PdfPCell cell(String words, Font font) {
    PdfPCell cell = new PdfPCell(new Phrase(words, font));
    cell.setBorderWidth(0);
    cell.setBorderWidthBottom(0.4f);
    cell.setPaddingLeft(0);
    cell.setPaddingBottom(font.getSize() * 0.25f);
    return cell;
  }
}
