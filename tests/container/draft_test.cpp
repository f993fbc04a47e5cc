// Sheets from an example: archives that an independent program wrote (tests/layouts/layouts.py) are handed over without their sheets.
#include <gtest/gtest.h>

#include "base/bytes.h"
#include "container/draft_sheet.h"
#include "container/sheet_try.h"
#include "support/pictures.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

class Drafts : public testing::Test {
protected:
    TempFolder folder;
    std::filesystem::path write(const std::string& layout, const std::string& archive) {
        std::filesystem::create_directories(folder / layout);
        const auto ran =
            run_program({"python3", std::string(SKIVET_LAYOUTS) + "/layouts.py", "write", layout, (folder / layout).string(), "7"});
        EXPECT_EQ(ran.code, 0) << ran.output;
        return folder / layout / archive;
    }
};

}  // namespace

TEST_F(Drafts, ReadAndWriteWhatTheyWereDraftedFrom) {
    struct Case {
        std::string layout, archive;
    };
    // Names in fields of one size; behind their length, with the header at the end; and an index with numbered data files.
    for (const auto& [layout, archive] : {Case{"bins", "game.bins"}, Case{"trunk", "game.trunk"}, Case{"index", "game.idx"}}) {
        const auto path = write(layout, archive);
        const auto draft = draft_sheet(ReadContext{}, *FileView::open(path), Progress{});
        ASSERT_TRUE(draft) << layout << ": " << draft.error().message();
        ReadContext context;
        put_file(folder / (layout + ".toml"), Bytes(as_bytes(draft->toml).begin(), as_bytes(draft->toml).end()));
        ASSERT_TRUE(add_sheet(context, folder / (layout + ".toml"))) << draft->toml;
        const auto container = open_source(context, path);
        ASSERT_TRUE(container) << container.error().message();
        std::map<std::string, Bytes> expected;
        for (const auto& item : std::filesystem::recursive_directory_iterator(folder / layout / "plain"))
            if (item.is_regular_file())
                expected[item.path().lexically_relative(folder / layout / "plain").generic_string()] = get_file(item.path());
        std::map<std::string, Bytes> found;
        for (std::size_t i = 0; i < (*container)->entries().size(); ++i)
            found[(*container)->entries()[i].path] = *(*container)->read(i, context.limits);
        EXPECT_TRUE(found == expected) << layout << ": " << draft->found << '\n' << draft->unsound << draft->toml;
        const auto proved = prove_writing(context, path, Progress{});
        EXPECT_TRUE(proved) << layout << ": " << (proved ? "" : proved.error().message()) << draft->toml;
    }
}

TEST_F(Drafts, NothingIsMadeUp) {
    Bytes noise(200'000);
    std::uint32_t state = 12345;
    for (auto& b : noise) state = state * 1664525u + 1013904223u, b = static_cast<std::byte>(state >> 24);
    const auto nothing = draft_sheet(ReadContext{}, FileView::of(noise, "noise.bin"), Progress{});
    ASSERT_FALSE(nothing);
    EXPECT_EQ(nothing.error().code, ErrorCode::unsupported);
    std::string text;
    for (int i = 0; i < 4000; ++i) text += "open daily from ten, " + std::to_string(i % 7) + " horses\n";
    EXPECT_FALSE(draft_sheet(ReadContext{}, FileView::of(Bytes(as_bytes(text).begin(), as_bytes(text).end()), "readme.txt"), Progress{}));
    EXPECT_FALSE(draft_sheet(ReadContext{}, FileView::of(Bytes(3), "x"), Progress{}));
}

TEST_F(Drafts, WhatIsNotSoundSaysSo) {
    // Records of empty entries, and a table of which nearly nothing can be read.
    const auto table = [](std::size_t records, bool empty) {
        ByteWriter w;
        w.put(std::string_view("TBL!"));
        w.le(static_cast<std::uint32_t>(records));
        for (std::size_t i = 0; i < records; ++i) {
            auto name = fmt::format("rides/horse{:03}.dds", i);
            name.resize(32);
            w.put(name);
            w.le(static_cast<std::uint32_t>(8 + records * 40));
            w.le(std::uint32_t{0});
        }
        w.put(random_bytes(empty ? 0 : 30'000, 4));
        return w.bytes;
    };
    for (const bool empty : {true, false}) {
        const auto draft = draft_sheet(ReadContext{}, FileView::of(table(17, empty), "t.bin"), Progress{});
        if (draft) EXPECT_FALSE(draft->unsound.empty()) << draft->toml;
    }
    // Readable names of one size are names at any number of records, never hashes.
    for (const std::size_t records : {4u, 5u, 6u, 7u, 9u, 12u, 20u}) {
        ByteWriter w;
        w.put(std::string_view("NAMS"));
        w.le(static_cast<std::uint32_t>(records));
        std::uint32_t at = static_cast<std::uint32_t>(8 + records * 56);
        Bytes data;
        for (std::size_t i = 0; i < records; ++i) {
            auto name = fmt::format("textures/booth_{}_tint.dds", i * 7);
            name.resize(48);
            w.put(name);
            const auto content = random_bytes(100 + 37 * i, static_cast<unsigned>(i));
            w.le(at);
            w.le(static_cast<std::uint32_t>(content.size()));
            at += static_cast<std::uint32_t>(content.size());
            data.insert(data.end(), content.begin(), content.end());
        }
        w.put(data);
        const auto draft = draft_sheet(ReadContext{}, FileView::of(w.bytes, "n.bin"), Progress{});
        if (!draft) continue;
        if (draft->unsound.empty()) EXPECT_EQ(draft->toml.find("path hash"), std::string::npos) << records << draft->toml;
    }
}
