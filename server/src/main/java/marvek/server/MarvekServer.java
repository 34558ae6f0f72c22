package marvek.server;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.cache.annotation.EnableCaching;
import org.springframework.scheduling.annotation.EnableScheduling;

/** The server: HTTP API, persistence, and the interface's files. */
@EnableScheduling
@SpringBootApplication
@EnableCaching
@ConfigurationPropertiesScan
public class MarvekServer {
  public static void main(String[] args) {
    SpringApplication.run(MarvekServer.class, args);
  }
}
