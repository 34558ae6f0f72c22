package marvek.core.units;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.CharRange;
import net.jqwik.api.constraints.Chars;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;

class CsvTextTest {
  @Test
  void whatASpreadsheetWouldRunIsATextThere() {
    for (String formula :
        new String[] {"=1+1", "+cmd|' /C calc'!A0", "-2+3", "@SUM(A1)", "\t=1", "\r=1"}) {
      assertThat(CsvText.safe(formula)).isEqualTo("'" + formula);
    }
    for (String harmless : new String[] {"", "-12.5", "+3", "1e-5", "late apex", "don't", "'tis"}) {
      assertThat(CsvText.safe(harmless)).isEqualTo(harmless);
      assertThat(CsvText.plain(harmless)).isEqualTo(harmless);
    }
  }

  @Property
  void whatWasWrittenIsReadAsItWas(
      @ForAll
          @Chars({'\'', '=', '+', '-', '@', '\t', '\r'})
          @CharRange(from = 'a', to = 'c')
          @CharRange(from = '0', to = '2')
          @StringLength(max = 6)
          String text) {
    assertThat(CsvText.plain(CsvText.safe(text))).isEqualTo(text);
    assertThat(CsvText.safe(text)).doesNotStartWith("=").doesNotStartWith("@");
  }
}
