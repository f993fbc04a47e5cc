#include "support/imagemagick.h"

#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "support/run_program.h"
#include "support/temp_folder.h"
#include "texture/png.h"

namespace skivet::test {

Bytes file_by_imagemagick(const Image& picture, const std::vector<std::string>& does, const std::string& as) {
    const TempFolder folder;
    put_file(folder / "a.png", *write_png(picture));
    std::vector<std::string> words = {"convert", (folder / "a.png").string()};
    words.insert(words.end(), does.begin(), does.end());
    const auto colon = as.find(':');
    const auto made = folder / ("b" + as.substr(colon + 1));
    words.push_back(as.substr(0, colon + 1) + made.string());
    const auto ran = run_program(words);
    EXPECT_EQ(ran.code, 0) << ran.output;
    return get_file(made);
}

Image by_imagemagick(const Image& picture, const std::vector<std::string>& does) {
    return *read_png(file_by_imagemagick(picture, does), ReadLimits{});
}

}  // namespace skivet::test
