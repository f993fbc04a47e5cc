#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "base/hash.h"
#include "base/pack.h"
#include "sheet/sheet.h"
#include "sheet/texture_sheet.h"
#include "support/pictures.h"
#include "support/places.h"

using namespace skivet;
using namespace skivet::test;

namespace {

const std::string texture_head = R"(sheet = "texture"
name = "T"
[[recognize]]
text = "TT"
[header]
fields = [
  { name = "magic", type = "text", size = 2 },
)";

std::string message_of(const std::string& toml) {
    const auto sheet = parse_sheet(toml, "s.toml");
    return sheet ? "sound" : sheet.error().message();
}

}  // namespace

TEST(Sheet, ShippedSheetsAreSound) {
    int count = 0;
    for (const auto& file : std::filesystem::directory_iterator(sheets_folder)) {
        if (file.path().extension() != ".toml") continue;  // dictionaries lie beside them
        const auto sheet = parse_sheet(as_text(get_file(file.path())), file.path().filename().string());
        EXPECT_TRUE(sheet) << (sheet ? "" : sheet.error().message());
        ++count;
    }
    EXPECT_GE(count, 8);
}

TEST(Sheet, MistakesAreNamedWithTheirLine) {
    EXPECT_EQ(message_of("sheet = \"texture\"\nname = 5"), "s.toml ▸ line 2: \"name\" must be text");
    EXPECT_EQ(message_of("sheet = \"picture\"\nname = \"x\""),
              "s.toml ▸ line 1: sheet = \"picture\" is not known; write \"container\", \"texture\" or \"wrapper\"");
    EXPECT_NE(message_of("sheet = ").find("line 1"), std::string::npos);
    EXPECT_NE(message_of(texture_head + "  { name = \"w\", type = \"u5\" },\n]").find("line 8: the type \"u5\" is not known"),
              std::string::npos);
    EXPECT_NE(message_of(texture_head + "  { name = \"w\", type = \"u16\", means = \"girth\" },\n]").find("line 8: the meaning \"girth\""),
              std::string::npos);
    EXPECT_NE(message_of(texture_head + "  { name = \"w\", type = \"u16\", wide = 1 },\n]").find("the word \"wide\" is not known here"),
              std::string::npos);
    EXPECT_NE(message_of(texture_head + "  { name = \"w\", type = \"u16\", means = \"width\" },\n]")
                  .find("no field of [header] means \"height\""),
              std::string::npos);
    EXPECT_NE(message_of(texture_head + "  { name = \"f\", type = \"u8\", means = \"format\", values = { 1 = \"BC9\" } },\n]")
                  .find("the format \"BC9\""),
              std::string::npos);
}

TEST(Sheet, RecordsInFoldersNeedFolders) {
    const std::string header = R"(sheet = "container"
name = "K"
[[recognize]]
bytes = "4B 4b"
[header]
fields = [{ name = "magic", type = "bytes", size = 2 }, { name = "n", type = "u32", means = "entry count" }]
)";
    const std::string folders = R"([folders]
count = 2
fields = [{ name = "name", type = "text", size = 8, means = "folder" }, { name = "n", type = "u32", means = "entry count" }]
)";
    const std::string record = R"([record]
at = "in folder"
fields = [
  { name = "path", type = "text", size = 8, means = "path" },
  { name = "at", type = "u32", means = "data offset" },
  { name = "size", type = "u32", means = "size" },
]
)";
    EXPECT_EQ(message_of(header + folders + record), "sound");
    EXPECT_NE(message_of(header + record).find("line 8: records lie \"in folder\", and there is no [folders]"), std::string::npos)
        << message_of(header + record);
}

TEST(Sheet, ReadsEveryKindOfField) {
    const auto sheet = parse_sheet(R"(sheet = "container"
name = "K"
byte_order = "big"
[[recognize]]
bytes = "4B 4b"
[header]
fields = [
  { name = "magic", type = "bytes", size = 2 },
  { name = "n", type = "u24", means = "entry count" },
  { name = "t", type = "u16", unit = 4, means = "table offset" },
  { name = "title", type = "text", length = "until zero" },
  { name = "short", type = "text", length = "u8" },
  { name = "fixed", type = "text", size = 4 },
]
[record]
fields = [
  { name = "p", type = "text", length = "u8", means = "path" },
  { name = "o", type = "u64", means = "data offset" },
  { name = "s", type = "u32", means = "stored size" },
])",
                                   "k.toml");
    ASSERT_TRUE(sheet) << sheet.error().message();
    const auto data =
        bytes_of(std::string("KK\x00\x01\x02\x00\x08hi\0\x03"
                             "abcxy\0\0",
                             18));
    EXPECT_TRUE(recognize(*sheet, data, data.size(), "a.k"));
    const auto values = read_record(*sheet, sheet->header, data, 0, ReadLimits{});
    ASSERT_TRUE(values) << values.error().message();
    EXPECT_EQ(values->number(Meaning::entry_count), 0x000102u);
    EXPECT_EQ(values->number(Meaning::table_offset), 32u) << "8 steps of 4 bytes";
    EXPECT_EQ(values->values[3].text, "hi");
    EXPECT_EQ(values->values[4].text, "abc");
    EXPECT_EQ(values->values[5].text, "xy") << "zero bytes end fixed text";
    EXPECT_EQ(values->end, data.size());
    const auto& offset = *sheet->header.with(Meaning::table_offset);
    EXPECT_EQ(to_hex(*field_bytes(*sheet, offset, 0x400)), "0100");
    EXPECT_FALSE(field_bytes(*sheet, offset, 6)) << "no multiple of the unit";
    EXPECT_FALSE(field_bytes(*sheet, offset, 4ull << 20)) << "does not fit";
}

TEST(Sheet, CutOffRecordsNameTheField) {
    const auto sheet = *parse_sheet(as_text(get_file(std::filesystem::path(sheets_folder) / "fair-panel.toml")), "p");
    const auto values = read_record(sheet, sheet.header, bytes_of(std::string_view("PNL1\x10\x00\x10", 7)), 0, ReadLimits{});
    ASSERT_FALSE(values);
    EXPECT_EQ(values.error().message(), "field height: needs 2 bytes, has 1 (at byte 0x6)");
}

namespace {

Bytes panel(std::uint16_t w, std::uint16_t h, std::uint8_t levels) {
    Bytes payload;
    for (int l = levels - 1; l >= 0; --l) {
        while (payload.size() % 8) payload.push_back(std::byte{0});
        const auto level = random_bytes(static_cast<std::size_t>(level_bytes(Format::BC1, mip_side(w, static_cast<std::uint32_t>(l)),
                                                                             mip_side(h, static_cast<std::uint32_t>(l)))),
                                        static_cast<unsigned>(l));
        payload.insert(payload.end(), level.begin(), level.end());
    }
    ByteWriter out;
    out.put("PNL1");
    out.le(w);
    out.le(h);
    out.le(std::uint8_t{1});
    out.le(levels);
    out.le(std::uint16_t{0x0301});
    out.le(static_cast<std::uint32_t>(payload.size()));
    out.le(crc32(payload));
    out.put("twenty bytes of tags");
    out.put(payload);
    return out.bytes;
}

SheetTextureKind panel_kind() {
    return SheetTextureKind(*parse_sheet(as_text(get_file(std::filesystem::path(sheets_folder) / "fair-panel.toml")), "p"));
}

}  // namespace

TEST(TextureSheet, LaysOutSmallestFirst) {
    const auto kind = panel_kind();
    const auto file = panel(16, 16, 5);
    ASSERT_TRUE(kind.recognize(file, "x"));
    const auto layout = kind.layout(file, file.size(), ReadLimits{});
    ASSERT_TRUE(layout) << layout.error().message();
    EXPECT_EQ(layout->desc.mips, 5u);
    EXPECT_EQ(layout->desc.color, ColorSpace::srgb);
    EXPECT_EQ(layout->find(4)->offset, 40u);
    EXPECT_EQ(layout->find(0)->offset, 40u + 8 * 3 + 32);
    EXPECT_EQ(layout->find(0)->offset + 128, file.size());
}

TEST(TextureSheet, WritingFollowsFromTheMeanings) {
    const auto kind = panel_kind();
    const auto file = panel(16, 16, 5);
    const auto layout = *kind.layout(file, file.size(), ReadLimits{});
    const auto index = static_cast<std::size_t>(layout.find(1) - layout.surfaces.data());
    const std::vector<SurfaceEdit> edits = {{index, random_bytes(32, 99)}};
    const auto out = kind.replace(file, layout, edits);
    ASSERT_TRUE(out);
    EXPECT_EQ(load_le<std::uint32_t>(out->data() + 16), crc32(ByteSpan(*out).subspan(40))) << "the checksum field follows";
    EXPECT_TRUE(std::equal(file.begin(), file.begin() + 16, out->begin())) << "nothing else of the header changes";
    EXPECT_TRUE(std::equal(file.begin() + 20, file.begin() + 40, out->begin() + 20));
    EXPECT_EQ(*kind.replace(file, layout, {}), file);
}

TEST(TextureSheet, NumbersWithoutANameAreSaid) {
    const auto kind = panel_kind();
    auto file = panel(16, 16, 5);
    file[8] = std::byte{200};
    const auto layout = kind.layout(file, file.size(), ReadLimits{});
    ASSERT_FALSE(layout);
    EXPECT_EQ(layout.error().message(),
              "field pixels: the sheet has no name for 200 (at byte 0x8). Add it to the field's values in the sheet");
    file = panel(16, 16, 5);
    file.pop_back();
    const auto cut = kind.layout(file, file.size(), ReadLimits{});
    ASSERT_TRUE(cut) << "what is there can be shown";
    ASSERT_TRUE(cut->damage);
    EXPECT_NE(cut->damage->message().find("mip chain: needs"), std::string::npos);
}

TEST(TextureSheet, OfAnotherSizeItIsWhatTheGameWouldHaveWritten) {
    const auto kind = panel_kind();
    const auto file = panel(16, 16, 5), wanted = panel(32, 64, 7);
    const auto layout = *kind.layout(file, file.size(), ReadLimits{});
    ASSERT_TRUE(kind.can_resize(layout));
    const auto shared = std::make_shared<SheetTextureKind>(panel_kind());
    const TextureFile large{shared, *kind.layout(wanted, wanted.size(), ReadLimits{}), wanted};
    const auto made = kind.resized(file, layout, large.layout.desc, *payload_of(large));
    ASSERT_TRUE(made) << made.error().message();
    EXPECT_EQ(*made, wanted) << "sizes, payload size, checksum, order and alignment of the levels";
    // What stands behind the levels goes on standing there.
    auto longer = file;
    const auto behind = random_bytes(9, 8);
    longer.insert(longer.end(), behind.begin(), behind.end());
    const auto with_tail = *kind.resized(longer, *kind.layout(longer, longer.size(), ReadLimits{}), large.layout.desc, *payload_of(large));
    EXPECT_EQ(with_tail.size(), wanted.size() + 9);
    EXPECT_TRUE(std::equal(behind.begin(), behind.end(), with_tail.end() - 9));
    // 16 bits hold no more.
    auto huge = layout.desc;
    huge.width = 70'000, huge.height = 4, huge.mips = 1;
    const auto refused = kind.resized(file, layout, huge, Bytes(level_bytes(huge.format, huge.width, huge.height)));
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().message().find("field width"), std::string::npos) << refused.error().message();
    auto other = layout.desc;
    other.format = Format::BC7;
    EXPECT_EQ(kind.resized(file, layout, other, Bytes(4096)).error().code, ErrorCode::unsupported);
}

TEST(TextureSheet, APackedOneOfAnotherSize) {
    const SheetTextureKind kind(*parse_sheet(texture_head + R"(
  { name = "w", type = "u16", means = "width" }, { name = "h", type = "u16", means = "height" },
  { name = "size", type = "u32", means = "payload size" }, ]
[texture]
format = "RGBA8"
[payload]
method = "zlib"
)",
                                             "s.toml"));
    const auto file_of = [](std::uint16_t side, const Bytes& texels) {
        const auto packed = *pack(Packing::zlib, texels);
        ByteWriter out;
        out.put("TT");
        out.le(side);
        out.le(side);
        out.le(static_cast<std::uint32_t>(packed.size()));
        out.put(packed);
        return out.bytes;
    };
    const auto small = file_of(8, random_bytes(8 * 8 * 4, 1));
    const auto layout = *kind.layout(small, small.size(), ReadLimits{});
    ASSERT_TRUE(kind.can_resize(layout));
    auto d = layout.desc;
    d.width = d.height = 24;
    const auto texels = random_bytes(24 * 24 * 4, 2);
    const auto made = kind.resized(small, layout, d, texels);
    ASSERT_TRUE(made) << made.error().message();
    const auto shared = std::make_shared<SheetTextureKind>(kind);
    const auto again = shared->layout(*made, made->size(), ReadLimits{});
    ASSERT_TRUE(again) << again.error().message();
    EXPECT_EQ(*payload_of({shared, *again, *made}), texels);
    EXPECT_EQ(load_le<std::uint32_t>(made->data() + 6), made->size() - 10) << "the packed size";
}

TEST(TextureSheet, WhereMoreThanTheSizeWouldHaveToFollowItStays) {
    const auto can = [](const std::string& fields, const std::string& payload) {
        const auto sheet = parse_sheet(texture_head + fields + "]\n[texture]\nformat = \"R8\"\n" + payload, "s.toml");
        EXPECT_TRUE(sheet) << (sheet ? "" : sheet.error().message());
        const SheetTextureKind kind(*sheet);
        Bytes file = bytes_of(std::string_view("TT\x04\0\x04\0\x04\0\0\0", 10));
        file.resize(600);
        const auto layout = kind.layout(file, file.size(), ReadLimits{});
        EXPECT_TRUE(layout) << (layout ? "" : layout.error().message());
        return layout && kind.can_resize(*layout);
    };
    const std::string sides =
        "  { name = \"w\", type = \"u16\", means = \"width\" }, { name = \"h\", type = \"u16\", means = \"height\" },\n";
    EXPECT_TRUE(can(sides, ""));
    EXPECT_FALSE(can(sides + "  { name = \"pitch\", type = \"u16\", means = \"row pitch\" },\n", "")) << "a stated pitch";
    EXPECT_FALSE(can("  { name = \"w\", type = \"u16\", means = \"width\" },\n", "height = 4\n")) << "a height that is nowhere in the file";
}
