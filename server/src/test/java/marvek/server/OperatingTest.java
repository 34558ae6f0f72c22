package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.exception.FlywayValidateException;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.autoconfigure.actuate.observability.AutoConfigureObservability;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalManagementPort;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.context.ActiveProfiles;

/** What whoever runs the server sees of it. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
@AutoConfigureObservability
@ActiveProfiles("test")
@Tag("database")
class OperatingTest {
  @LocalServerPort private int port;
  @LocalManagementPort private int management;
  @Autowired private Flyway flyway;
  @Autowired private JdbcClient sql;

  private static HttpResponse<String> get(int port, String path) throws Exception {
    return HttpClient.newHttpClient()
        .send(
            HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path)).build(),
            HttpResponse.BodyHandlers.ofString());
  }

  @Test
  void metricsAndHealthHaveAPortOfTheirOwn() throws Exception {
    assertThat(management).isNotEqualTo(port);
    assertThat(get(port, "/api/session").statusCode()).isEqualTo(200);
    assertThat(get(management, "/actuator/prometheus").body())
        .contains("http_server_requests_seconds")
        .contains("hikaricp_connections")
        .contains("jvm_memory_used_bytes");
    assertThat(get(management, "/actuator/health/readiness").statusCode()).isEqualTo(200);
    assertThat(get(port, "/readyz").statusCode()).isEqualTo(200);
    // What the interface does not know is its start page, and nothing of the server's.
    assertThat(get(port, "/actuator/prometheus").body()).doesNotContain("jvm_memory_used_bytes");
    assertThat(get(management, "/actuator/env").statusCode()).isEqualTo(404);
    assertThat(get(management, "/api/session").statusCode()).isNotEqualTo(200);
  }

  @Test
  void aDatabaseOfANewerVersionIsNotTouched() {
    assertThatCode(flyway::validate).doesNotThrowAnyException();
    sql.sql(
            """
            insert into flyway_schema_history (installed_rank, version, description, type, script,
              checksum, installed_by, execution_time, success)
            values (9999, '9999', 'newer', 'SQL', 'V9999__newer.sql', 1, 'x', 1, true)
            """)
        .update();
    try {
      assertThatThrownBy(flyway::validate)
          .isInstanceOf(FlywayValidateException.class)
          .hasMessageContaining("9999");
    } finally {
      sql.sql("delete from flyway_schema_history where installed_rank = 9999").update();
    }
  }
}
