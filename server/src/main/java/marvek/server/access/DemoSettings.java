package marvek.server.access;

import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * Whether this server shows the demo.
 *
 * @param demo loads the scenario and offers sign-in by one click
 */
@ConfigurationProperties("marvek")
public record DemoSettings(boolean demo) {
  /** People of the demo. */
  public enum Person {
    DRIVER("driver@example.org", "Inês Falcão"),
    COACH("coach@example.org", "Tomé Serrano");

    private final String email;
    private final String fullName;

    Person(String email, String fullName) {
      this.email = email;
      this.fullName = fullName;
    }

    public String email() {
      return email;
    }

    public String fullName() {
      return fullName;
    }
  }
}
