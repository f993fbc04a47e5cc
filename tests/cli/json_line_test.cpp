// Lines of JSON put together by hand are those that the library would write.
#include "cli/json_line.h"

#include <gtest/gtest.h>

#include <limits>

using namespace skivet::cli;

TEST(JsonLine, IsWhatTheLibraryWrites) {
    for (const std::string text :
         {"", "plain/path.dds", "say \"so\" \\ and so on", "a\tb\nc\x01", "Gerüst ▸ Ω", "not \xff\xfe UTF-8", "\x7f"}) {
        const nlohmann::json tree = {{"address", text}, {"count", std::uint64_t{18446744073709551615u}}, {"share", 0.25}, {"whole", true}};
        const auto line = std::move(JsonLine()
                                        .add("address", text)
                                        .add("count", std::numeric_limits<std::uint64_t>::max())
                                        .add("share", 0.25)
                                        .add("whole", true))
                              .line();
        EXPECT_EQ(line, dump(tree) + '\n');
        EXPECT_TRUE(nlohmann::json::accept(line)) << line;
    }
}
