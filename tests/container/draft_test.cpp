// Sheets from an example: archives that an independent program wrote (tests/layouts/layouts.py) are handed over without their sheets.
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <gtest/gtest.h>
#include <filesystem>
#include <string>

#include "base/bytes.h"
#include "container/draft_sheet.h"
#include "container/sheet_try.h"
#include "support/band_archive.h"
#include "support/pictures.h"
#include "support/places.h"
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
            run_program({"python3", std::string(layouts_folder) + "/layouts.py", "write", layout, (folder / layout).string(), "7"});
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

namespace {

/// The archive through the sheets and keys of its draft.
std::shared_ptr<const Container> through(const SheetDraft& draft, const FileView& file, TempFolder& folder) {
    ReadContext context;
    auto keys = std::make_shared<KeyRing>();
    for (const auto& key : draft.keys) keys->add(key);
    context.keys = keys;
    put_file(folder / "sheets/a.toml", bytes_of(draft.toml));
    if (!draft.wrapper.empty()) put_file(folder / "sheets/b.toml", bytes_of(draft.wrapper));
    for (const auto& error : add_sheets_in(context, folder / "sheets")) ADD_FAILURE() << error.message();
    const auto opened = open_container(context, file);
    EXPECT_TRUE(opened) << (opened ? "" : opened.error().message());
    return opened ? *opened : nullptr;
}

}  // namespace

TEST_F(Drafts, AShortKeyIsFoundAndComesAlong) {
    const Bytes key = {std::byte{0xA5}, std::byte{0x17}, std::byte{0xE2}};
    const auto file = FileView::of(band_archive(key), "band.pak0");
    const auto draft = draft_sheet(ReadContext{}, file, Progress{});
    ASSERT_TRUE(draft) << draft.error().message();
    EXPECT_EQ(draft->unsound, "");
    ASSERT_EQ(draft->keys.size(), 1u);
    EXPECT_EQ(draft->keys[0].bytes, key);
    EXPECT_EQ(draft->keys[0].name, "band") << "after the archive: two drafts do not share a key";
    EXPECT_EQ(draft->toml.find("a5"), std::string::npos) << "keys are never in sheets";
    // A key of that name that is somebody's already stays his.
    ReadContext taken;
    auto ring = std::make_shared<KeyRing>();
    ring->add({"band", bytes_of("mine")});
    taken.keys = ring;
    const auto beside = draft_sheet(taken, file, Progress{});
    ASSERT_EQ(beside->keys.size(), 1u);
    EXPECT_EQ(beside->keys[0].name, "band 2");
    EXPECT_NE(beside->toml.find("key = \"band 2\""), std::string::npos);
    const auto opened = through(*draft, file, folder);
    ASSERT_EQ(opened->entries().size(), 24u);
    EXPECT_EQ(as_text(*opened->read(1, ReadLimits{})).substr(0, 52), std::string(49, 'b') + " a ");
    // Without a key there is none: nothing is hidden in plain files.
    EXPECT_TRUE(draft_sheet(ReadContext{}, FileView::of(band_archive({}), "band.pak0"), Progress{})->keys.empty());
}

TEST_F(Drafts, AFileThatIsHiddenAsAWholeGetsASheetAroundIt) {
    const Bytes key = {std::byte{0x91}, std::byte{0x3C}, std::byte{0x77}, std::byte{0xE8}, std::byte{0x05}};
    const auto file = FileView::of(hidden_band_archive(key), "band.pak0");
    const auto draft = draft_sheet(ReadContext{}, file, Progress{});
    ASSERT_TRUE(draft) << draft.error().message();
    EXPECT_EQ(draft->unsound, "");
    ASSERT_FALSE(draft->wrapper.empty());
    const auto opened = through(*draft, file, folder);
    ASSERT_EQ(opened->entries().size(), 24u);
    EXPECT_EQ(opened->entries()[3].path, "band/drum_3.txt");
}

TEST_F(Drafts, WhereNoTableIsWhatCanBeSeenIsSaid) {
    Bytes file = random_bytes(64 << 10, 5);
    std::string names;
    for (int i = 0; i < 40; ++i) names += fmt::format("ride_{}.dds", i) + '\0';
    file.resize(file.size() + 4);
    const auto more = bytes_of(names);
    file.insert(file.end(), more.begin(), more.end());
    file.resize(file.size() + (16 << 10));
    const auto lines = seen_in(file);
    const auto says = [&](std::string_view words) {
        return std::any_of(lines.begin(), lines.end(), [&](const auto& line) { return line.find(words) != std::string::npos; });
    };
    EXPECT_TRUE(says("0x0 to 0xfb90: packed or hidden bytes, 8.0 bits a byte")) << fmt::format("{}", fmt::join(lines, "\n"));
    EXPECT_TRUE(says("zeros, 0.0 bits a byte"));
    EXPECT_TRUE(says("40 names one after the other at 0x10004, the first is \"ride_0.dds\""));
    // Records of 24 bytes that begin alike.
    Bytes records;
    for (unsigned i = 0; i < 400; ++i) {
        auto one = random_bytes(24, i);
        std::fill(one.begin(), one.begin() + 6, std::byte{0x42});
        records.insert(records.end(), one.begin(), one.end());
    }
    const auto strides = seen_in(records);
    EXPECT_NE(strides.back().find("distances of 24 bytes"), std::string::npos) << strides.back();
    EXPECT_TRUE(seen_in({}).empty());
    const auto none = draft_sheet(ReadContext{}, FileView::of(file, "x.bin"), Progress{});
    ASSERT_FALSE(none);
    EXPECT_NE(none.error().message().find("What can be seen:"), std::string::npos);
}
