package marvek.server;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.servers.Server;
import java.util.List;
import marvek.core.said.Said;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The description of the API at {@code /v3/api-docs}. */
@Configuration
class OpenApiConfig {
  static {
    // What is said comes as words.
    SpringDocUtils.getConfig().replaceWithClass(Said.class, String.class);
  }

  @Bean
  OpenAPI description() {
    return new OpenAPI()
        .info(
            new Info()
                .title("Marvek")
                .version("1")
                .description(
                    "Everything the interface does. SI units and radians; stations in metres from"
                        + " the start/finish line. Sign in with POST /api/session; send the cookie"
                        + " XSRF-TOKEN back as header X-XSRF-TOKEN with every change."))
        .servers(List.of(new Server().url("/")));
  }
}
