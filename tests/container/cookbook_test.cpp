// The cookbook of docs/sheets.md: every archive on it is tried under its sheet, and writing is proved.
#include <gtest/gtest.h>

#include <fmt/format.h>
#include <filesystem>
#include <sstream>
#include <string>
#include <vector>

#include "base/file_write.h"
#include "base/keys.h"
#include "container/address.h"
#include "container/sheet_try.h"
#include "support/pictures.h"
#include "support/places.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Recipe {
    std::string title, sheet;
    Bytes archive;
};

/// The sections "### 1. …" with an indented dump and an indented sheet each.
std::vector<Recipe> recipes() {
    std::istringstream in(as_text(get_file(std::filesystem::path(layouts_folder) / "../../docs/sheets.md")));
    std::vector<Recipe> out;
    bool in_book = false;
    for (std::string line; std::getline(in, line);) {
        if (line.starts_with("## ")) in_book = line == "## Cookbook";
        if (!in_book) continue;
        if (line.starts_with("### ")) out.push_back({line.substr(4), {}, {}});
        if (!line.starts_with("    ") || out.empty()) continue;
        line.erase(0, 4);
        if (line.size() > 10 && line[8] == ':' && line[9] == ' ') {
            EXPECT_EQ(std::stoull(line.substr(0, 8), nullptr, 16), out.back().archive.size()) << line;
            const auto bytes = bytes_of_hex(line.substr(10, 39));
            EXPECT_TRUE(bytes) << line;
            if (bytes) out.back().archive.insert(out.back().archive.end(), bytes->begin(), bytes->end());
        } else {
            out.back().sheet += line + '\n';
        }
    }
    return out;
}

/// Names, formats and sides of an archive's textures.
std::string open_texture_of(const ReadContext& context, const std::filesystem::path& path) {
    const auto archive = open_source(context, path);
    if (!archive) return archive.error().message();
    std::string out;
    for (std::size_t i = 0; i < (*archive)->entries().size(); ++i) {
        const auto& name = (*archive)->entries()[i].path;
        const auto texture = TextureFile::open(context.textures, *(*archive)->read(i, context.limits), name, context.limits);
        out += texture ? fmt::format("{} {} {}, ", name, info(texture->layout.desc.format).name, size_text(texture->layout.desc))
                       : texture.error().message();
    }
    return out;
}

}  // namespace

TEST(Cookbook, EveryArchiveIsReadWhollyAndWritten) {
    const auto all = recipes();
    ASSERT_GE(all.size(), 8u);
    for (const auto& recipe : all) {
        SCOPED_TRACE(recipe.title);
        TempFolder folder;
        put_file(folder / "a.bin", recipe.archive);
        put_file(folder / "s.toml", bytes_of(recipe.sheet));
        auto sheet = parse_sheet(recipe.sheet, "s.toml");
        ASSERT_TRUE(sheet) << sheet.error().message();
        ReadContext context;
        ASSERT_TRUE(add_sheet(context, folder / "s.toml"));
        const auto trial = try_sheet(context, std::make_shared<const Sheet>(*sheet), *FileView::open(folder / "a.bin"));
        ASSERT_TRUE(trial);
        EXPECT_FALSE(trial->first_wrong) << trial->first_wrong->message();
        EXPECT_GE(trial->entries, 2u);
        EXPECT_EQ(trial->readable, trial->entries);
        EXPECT_EQ(trial->unexplained, 0u);
        const auto proof = prove_writing(context, folder / "a.bin", Progress{});
        ASSERT_TRUE(proof) << proof.error().message();
        EXPECT_EQ(proof->changed, trial->entries);
        EXPECT_EQ(proof->longer, recipe.sheet.find("[texture]") == std::string::npos ? trial->entries : 0u) << proof->refused;
        EXPECT_NE(text_of(*proof).find("every byte is explained"), std::string::npos) << text_of(*proof);
    }
}

TEST(Cookbook, NamesAndContentsAreWhatThePageSays) {
    const auto all = recipes();
    const std::vector<std::pair<std::string, std::string>> some = {{"tent", "a tent of red and white"},
                                                                   {"horn", "toot toot toot"},
                                                                   {"01", "lamp"},
                                                                   {"tent", "red, white, red"},
                                                                   {"RIDE/horse", "gallop"},
                                                                   {"lamp", "lamp!"},
                                                                   {"", ""},
                                                                   {"lamp", "light, light"}};
    ASSERT_GE(all.size(), some.size());
    for (std::size_t i = 0; i < some.size(); ++i) {
        SCOPED_TRACE(all[i].title);
        TempFolder folder;
        put_file(folder / "a.bin", all[i].archive);
        put_file(folder / "s.toml", bytes_of(all[i].sheet));
        ReadContext context;
        ASSERT_TRUE(add_sheet(context, folder / "s.toml"));
        if (some[i].first.empty()) {
            const auto texture = open_texture_of(context, folder / "a.bin");
            EXPECT_EQ(texture, "horse.dds BC1 4×4, lamp.dds RGBA8 2×1, ");
            continue;
        }
        const auto bytes = read_address(context, {folder / "a.bin", {some[i].first}});
        ASSERT_TRUE(bytes) << bytes.error().message();
        EXPECT_EQ(as_text(*bytes), some[i].second);
    }
    // The one inside the other.
    TempFolder folder;
    put_file(folder / "a.bin", all[2].archive);
    put_file(folder / "s.toml", bytes_of(all[2].sheet));
    ReadContext context;
    ASSERT_TRUE(add_sheet(context, folder / "s.toml"));
    EXPECT_EQ(as_text(*read_address(context, {folder / "a.bin", {"00", "01"}})), "tent");
}
