// What drafting must not take for an archive, or for hidden, however well some numbers fit.
#include <gtest/gtest.h>
#include <random>
#include <string>

#include "container/draft_sheet.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// A small database as dBase III wrote it (from memory: a header of 32 bytes with the date, the number of records, its own and a record's
/// bytes; 32 bytes a field; 0D; records of text that begin with a blank), with a number of four bytes in each record.
Bytes database(unsigned seed) {
    std::mt19937 twister(seed);
    const auto random = [&] { return static_cast<unsigned>(twister()); };
    const char* names[] = {"TERRAIN", "BITMAP", "X_LOC", "Y_LOC", "FRAME_NO", "FILENAME", "PRIORITY", "LAYER"};
    const unsigned fields = 3 + random() % 5, records = 12 + random() % 180;
    std::vector<unsigned> widths;
    unsigned width = 1 + 4;
    for (unsigned f = 0; f < fields; ++f) widths.push_back(1 + random() % 9), width += widths.back();
    ByteWriter out;
    for (const unsigned b : {3u, 97u, 11u, 3u}) out.le(static_cast<std::uint8_t>(b));
    out.le(std::uint32_t{records});
    out.le(static_cast<std::uint16_t>(32 * (fields + 2) + 1));
    out.le(static_cast<std::uint16_t>(width));
    out.bytes.resize(32);
    for (unsigned f = 0; f <= fields; ++f) {
        std::string name = f < fields ? names[f] : "BITMAPPTR";
        name.resize(11);
        out.put(name);
        out.put("C");
        out.le(std::uint32_t{f});
        out.le(static_cast<std::uint8_t>(f < fields ? widths[f] : 4));
        out.bytes.resize(32 * (f + 2));
    }
    out.le(std::uint8_t{13});
    std::uint32_t place = 0;
    for (unsigned r = 0; r < records; ++r) {
        out.put(" ");
        for (unsigned f = 0; f < fields; ++f) {
            auto text = f % 2 == 0 ? "SG-" + std::to_string(100 + random() % 60) : std::to_string(random() % 12);
            text.resize(widths[f], ' ');
            out.put(text);
        }
        out.le(place);
        place += 300 + random() % 900;
    }
    return std::move(out.bytes);
}

/// A count, one offset more than entries, then pictures with their sides and a frame that is transparent: all bytes FF.
Bytes sprites(unsigned count) {
    ByteWriter out;
    out.le(static_cast<std::uint16_t>(count));
    std::vector<Bytes> pictures;
    std::size_t at = 2 + 4 * (std::size_t{count} + 1);
    for (unsigned i = 0; i < count; ++i) {
        const unsigned side = 16 + 4 * (i % 5);
        Bytes picture(4 + std::size_t{side} * side, std::byte{0xFF});
        store_uint(picture.data(), side, 2, ByteOrder::little);
        store_uint(picture.data() + 2, side, 2, ByteOrder::little);
        for (unsigned y = side / 3; y < 2 * side / 3; ++y)
            for (unsigned x = side / 3; x < 2 * side / 3; ++x)
                picture[4 + std::size_t{y} * side + x] = static_cast<std::byte>(0x60 + (x * 7 + y * 3 + i) % 48);
        out.le(static_cast<std::uint32_t>(at));
        at += picture.size();
        pictures.push_back(std::move(picture));
    }
    out.le(static_cast<std::uint32_t>(at));
    auto bytes = std::move(out.bytes);
    for (const auto& picture : pictures) bytes.insert(bytes.end(), picture.begin(), picture.end());
    return bytes;
}

}  // namespace

TEST(DraftDoubts, ADatabaseIsNoArchive) {
    for (unsigned seed = 1; seed <= 20; ++seed) {
        const auto draft = draft_sheet(ReadContext{}, FileView::of(database(seed), "HILLS.RES"), Progress{});
        EXPECT_FALSE(draft && draft->unsound.empty()) << seed << ": " << (draft ? draft->found : "");
    }
}

TEST(DraftDoubts, PicturesFramedByOneValueAreNotHidden) {
    const auto draft = draft_sheet(ReadContext{}, FileView::of(sprites(14), "RAW.RES"), Progress{});
    ASSERT_TRUE(draft) << draft.error().message();
    EXPECT_EQ(draft->unsound, "");
    EXPECT_TRUE(draft->keys.empty()) << draft->toml;
    EXPECT_EQ(draft->entries, 14u);
    EXPECT_NE(draft->toml.find("tables = \"hold\""), std::string::npos) << "nothing else tells files of this kind\n" << draft->toml;
}

TEST(DraftDoubts, HiddenEntriesAreStillFound) {
    auto file = sprites(14);
    const auto data = 2 + 4 * 15;
    for (std::size_t i = data; i < file.size(); ++i) file[i] ^= std::byte{0x5A};
    const auto draft = draft_sheet(ReadContext{}, FileView::of(file, "RAW.RES"), Progress{});
    ASSERT_TRUE(draft) << draft.error().message();
    // Only what they are hidden by can be said of them: whether a frame was FF or 0, nothing shows.
    EXPECT_EQ(draft->entries, 14u) << draft->toml;
}

// Sizes alone lead from one to the next; one that counts itself is told by that.
TEST(DraftDoubts, SizesInFrontOfNamelessData) {
    const auto drafted = [](unsigned count, std::uint32_t itself) {
        ByteWriter out;
        for (unsigned i = 0; i < count; ++i) {
            const auto data = random_bytes(40 + 17 * i, i);
            out.le(static_cast<std::uint32_t>(data.size() + itself));
            out.bytes.insert(out.bytes.end(), data.begin(), data.end());
        }
        return draft_sheet(ReadContext{}, FileView::of(out.bytes, "MAN.SPR"), Progress{});
    };
    for (const std::uint32_t itself : {0u, 4u}) {
        const auto draft = drafted(20, itself);
        ASSERT_TRUE(draft) << draft.error().message();
        EXPECT_EQ(draft->unsound, "") << itself;
        EXPECT_EQ(draft->entries, 20u);
        EXPECT_EQ(draft->toml.find("add = -4") != std::string::npos, itself == 4) << draft->toml;
        const auto few = drafted(7, itself);  // may be chance
        EXPECT_FALSE(few && few->unsound.empty()) << itself;
    }
}
