package marvek.server.problem;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import org.springframework.boot.autoconfigure.jackson.Jackson2ObjectMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** No list or map that comes in holds nulls; validation looks at what an element holds only. */
@Configuration
class NoNulls {
  @Bean
  Jackson2ObjectMapperBuilderCustomizer noNullsInLists() {
    return builder ->
        builder.postConfigurer(
            m -> m.setDefaultSetterInfo(JsonSetter.Value.forContentNulls(Nulls.FAIL)));
  }
}
