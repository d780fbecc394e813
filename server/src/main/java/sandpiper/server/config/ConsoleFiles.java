package sandpiper.server.config;

import java.time.Duration;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.PathResourceResolver;
import sandpiper.server.protocol.Protocol;

/**
 * Serves the console's files; its pages have addresses of their own, which all begin with the same
 * file.
 */
@Configuration
class ConsoleFiles implements WebMvcConfigurer {
    private static final String PLACE = "sandpiper/console/";

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        // Built files carry a hash of their content in their names.
        registry.addResourceHandler("/assets/**")
                .addResourceLocations("classpath:/" + PLACE + "assets/")
                .setCacheControl(CacheControl.maxAge(Duration.ofDays(365)).immutable());
        registry.addResourceHandler("/**")
                .addResourceLocations("classpath:/" + PLACE)
                .setCacheControl(CacheControl.noCache())
                .resourceChain(true)
                .addResolver(new PageResolver());
    }

    @Override
    public void addViewControllers(ViewControllerRegistry registry) {
        registry.addViewController("/").setViewName("forward:/index.html");
    }

    private static final class PageResolver extends PathResourceResolver {
        @Override
        protected @org.jspecify.annotations.Nullable Resource getResource(
                String path, Resource location) throws java.io.IOException {
            var found = super.getResource(path, location);
            boolean api =
                    Protocol.at("/" + path).isPresent()
                            || path.startsWith("manage/")
                            || path.startsWith("assets/");
            return found != null || api ? found : new ClassPathResource(PLACE + "index.html");
        }
    }
}
