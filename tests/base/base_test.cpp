#include <gtest/gtest.h>

#include <pwd.h>
#include <unistd.h>
#include <cstdlib>

#include <sys/stat.h>
#include <filesystem>
#include <string>

#include "base/bytes.h"
#include "base/deflate.h"
#include "base/file_view.h"
#include "base/file_write.h"
#include "base/hash.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

TEST(Hash, KnowsTheCheckValueOfCrc32) {
    // Check value of CRC-32/ISO-HDLC: "123456789" gives 0xCBF43926 (RFC 1952 uses the same polynomial).
    EXPECT_EQ(crc32(as_bytes("123456789")), 0xCBF43926u);
    EXPECT_EQ(crc32({}), 0u);
}

TEST(Hash, Sha256MatchesTheStandardsExample) {
    // FIPS 180-4, example "abc" (NIST, SHA256.pdf).
    EXPECT_EQ(to_hex(sha256(as_bytes("abc"))), "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
}

TEST(Bytes, ReadsBothByteOrders) {
    const auto data = bytes_of("\x01\x02\x03\x04\x05\x06\x07\x08");
    EXPECT_EQ(load_uint(data.data(), 3, ByteOrder::little), 0x030201u);
    EXPECT_EQ(load_uint(data.data(), 3, ByteOrder::big), 0x010203u);
    EXPECT_EQ(load_uint(data.data(), 8, ByteOrder::big), 0x0102030405060708u);
    Bytes out(5);
    store_uint(out.data(), 0xA1B2C3, 3, ByteOrder::big);
    EXPECT_EQ(to_hex(out), "a1b2c30000");
    store_uint(out.data() + 2, 0xA1B2C3, 3, ByteOrder::little);
    EXPECT_EQ(to_hex(out), "a1b2c3b2a1");
}

TEST(Bytes, AReaderCannotLeaveItsSpan) {
    const auto data = bytes_of("abcd");
    ByteReader reader(data);
    EXPECT_TRUE(reader.skip(3));
    const auto value = reader.le<std::uint32_t>();
    ASSERT_FALSE(value);
    EXPECT_EQ(value.error().message(), "needs 4 bytes, has 1 (at byte 0x3)");
    EXPECT_FALSE(reader.seek(5));
    EXPECT_TRUE(reader.seek(4));
    EXPECT_FALSE(reader.take(1));
    EXPECT_FALSE(slice(data, 3, ~0ull)) << "offset + size must not wrap around";
    EXPECT_FALSE(slice(data, ~0ull, 2));
    EXPECT_TRUE(slice(data, 4, 0));
}

TEST(Errors, SayWhereFromOutsideIn) {
    const Error error = Error{ErrorCode::damaged, "needs 5,592 bytes, has 4,096", {}, 64, "Look at it"}
                            .within("mip chain")
                            .within("entry 14")
                            .within("crate");
    EXPECT_EQ(error.message(), "crate ▸ entry 14 ▸ mip chain: needs 5,592 bytes, has 4,096 (at byte 0x40). Look at it");
}

TEST(Errors, HaveTheExitCodesOfTheContract) {
    EXPECT_EQ(exit_code(ErrorCode::usage), 2);
    for (auto code : {ErrorCode::damaged, ErrorCode::unsupported, ErrorCode::missing, ErrorCode::limit, ErrorCode::stale, ErrorCode::unfit})
        EXPECT_EQ(exit_code(code), 3);
    for (auto code : {ErrorCode::no_space, ErrorCode::permission, ErrorCode::io, ErrorCode::busy}) EXPECT_EQ(exit_code(code), 4);
    EXPECT_EQ(exit_code(ErrorCode::canceled), 130);
}

TEST(Errors, TellNoSpaceFromNoPermission) {
    EXPECT_EQ(fail_errno(ENOSPC, "x").value().code, ErrorCode::no_space);
    EXPECT_EQ(fail_errno(EROFS, "x").value().code, ErrorCode::permission);
    EXPECT_EQ(fail_errno(EIO, "x").value().code, ErrorCode::io);
}

TEST(Numbers, AreGroupedAndHuman) {
    EXPECT_EQ(grouped(0), "0");
    EXPECT_EQ(grouped(999), "999");
    EXPECT_EQ(grouped(5592), "5,592");
    EXPECT_EQ(grouped(1234567890), "1,234,567,890");
    EXPECT_EQ(human_bytes(1023), "1023 B");
    EXPECT_EQ(human_bytes(1398256), "1.3 MB");
}

TEST(Deflate, RoundTripsAndChecksTheStatedSize) {
    const auto data = random_bytes(5000, 3);
    const auto packed = deflate(data);
    const ReadLimits limits;
    EXPECT_EQ(*inflate(packed, data.size(), limits), data);
    EXPECT_FALSE(inflate(packed, data.size() - 1, limits));
    EXPECT_FALSE(inflate(packed, data.size() + 1, limits));
    EXPECT_TRUE(inflate(deflate({}), 0, limits)->empty());
}

TEST(Deflate, RefusesWhatDeflateCannotGiveBeforeTakingMemory) {
    const auto packed = deflate(Bytes(100));
    const auto huge = inflate(packed, 1ull << 30, ReadLimits{});
    ASSERT_FALSE(huge);
    EXPECT_EQ(huge.error().code, ErrorCode::limit);
    ReadLimits small;
    small.inflated_bytes = 50;
    EXPECT_EQ(inflate(packed, 100, small).error().code, ErrorCode::limit);
}

TEST(Deflate, APrefixIsEnoughToRecognize) {
    const auto data = random_bytes(100000, 5);
    const auto head = inflate_prefix(deflate(data), 256);
    ASSERT_TRUE(head);
    EXPECT_TRUE(std::equal(head->begin(), head->end(), data.begin()));
    EXPECT_EQ(head->size(), 256u);
    EXPECT_EQ(inflate_prefix(deflate(bytes_of("ab")), 256)->size(), 2u);
    EXPECT_FALSE(inflate_prefix(Bytes(40, std::byte{0xFF}), 256));
}

TEST(FileView, MapsAFileAndNoticesWhenItShrinks) {
    TempFolder folder;
    put_file(folder / "a", random_bytes(10000, 1));
    const auto view = FileView::open(folder / "a");
    ASSERT_TRUE(view);
    EXPECT_EQ(view->size(), 10000u);
    EXPECT_EQ(view->bytes(9999, 1)->size(), 1u);
    EXPECT_FALSE(view->bytes(9999, 2));
    std::filesystem::resize_file(folder / "a", 10);
    const auto after = view->bytes();
    ASSERT_FALSE(after) << "touching the map now would end the process";
    EXPECT_EQ(after.error().code, ErrorCode::stale);
}

TEST(FileView, OpensEmptyFilesAndRefusesFolders) {
    TempFolder folder;
    put_file(folder / "empty", {});
    EXPECT_TRUE(FileView::open(folder / "empty")->bytes()->empty());
    EXPECT_FALSE(FileView::open(folder.path()));
    EXPECT_EQ(FileView::open(folder / "none").error().code, ErrorCode::missing);
}

TEST(WriteFile, ReplacesAsAWhole) {
    TempFolder folder;
    const auto path = folder / "deep/er/file";
    EXPECT_TRUE(write_file(path, bytes_of("one")));
    EXPECT_TRUE(write_file(path, bytes_of("two!")));
    EXPECT_EQ(as_text(get_file(path)), "two!");
    EXPECT_EQ(std::distance(std::filesystem::directory_iterator(path.parent_path()), {}), 1) << "no temporary file stays";
    EXPECT_FALSE(read_file(path, 3)) << "larger than the limit";
}

TEST(WriteFile, TouchesNothingButItsTarget) {
    TempFolder folder;
    put_file(folder / "x", bytes_of("old"));
    put_file(folder / "x.part", bytes_of("another file"));
    ::chmod((folder / "x").c_str(), 0600);
    ASSERT_TRUE(write_file(folder / "x", as_bytes("new")));
    EXPECT_EQ(get_file(folder / "x"), bytes_of("new"));
    EXPECT_EQ(get_file(folder / "x.part"), bytes_of("another file"));
    EXPECT_EQ(std::filesystem::status(folder / "x").permissions(), std::filesystem::perms(0600));
    EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder.path()), {}), 2) << "nothing is left beside it";
    EXPECT_FALSE(write_file(folder / "x", as_bytes("newer"), {.replace = false}));
    EXPECT_TRUE(write_file(folder / "y", as_bytes("first"), {.replace = false}));
    EXPECT_FALSE(write_file(folder / "a/b", as_bytes("x"), {.make_folders = false}));
    EXPECT_TRUE(write_file(folder / "a/b", as_bytes("x")));
    EXPECT_EQ(write_file("/dev/null", as_bytes("x")).error().code, ErrorCode::usage);
    std::filesystem::create_symlink(folder / "y", folder / "link");
    ASSERT_TRUE(write_file(folder / "link", as_bytes("through")));
    EXPECT_TRUE(std::filesystem::is_symlink(folder / "link"));
    EXPECT_EQ(get_file(folder / "y"), bytes_of("through"));
}

TEST(WriteFile, LinksDoNotLeadOut) {
    TempFolder folder;
    std::filesystem::create_directories(folder / "in/real");
    std::filesystem::create_directories(folder / "out");
    std::filesystem::create_directory_symlink(folder / "out", folder / "in/away");
    std::filesystem::create_directory_symlink(folder / "in/real", folder / "in/inside");
    EXPECT_TRUE(path_inside(folder / "in", "real/x.png"));
    EXPECT_TRUE(path_inside(folder / "in", "new/deeper/x.png"));
    EXPECT_TRUE(path_inside(folder / "in", "inside/x.png")) << "a link that stays inside is no harm";
    EXPECT_FALSE(path_inside(folder / "in", "away/x.png"));
    EXPECT_FALSE(path_inside(folder / "in", "../out/x.png"));
    EXPECT_FALSE(lies_in(folder / "inner", folder / "in")) << "a name that begins alike";
    EXPECT_TRUE(lies_in(folder / "in", folder / "in"));
}

TEST(UserFolders, WithoutHomeTheSystemIsAskedAndNothingGuessable) {
    const std::string home = std::getenv("HOME") ? std::getenv("HOME") : "",
                      data = std::getenv("XDG_DATA_HOME") ? std::getenv("XDG_DATA_HOME") : "";
    ::unsetenv("HOME");
    ::unsetenv("XDG_DATA_HOME");
    const auto folder = user_data_folder();
    if (!home.empty()) ::setenv("HOME", home.c_str(), 1);
    if (!data.empty()) ::setenv("XDG_DATA_HOME", data.c_str(), 1);
    EXPECT_TRUE(folder.is_absolute()) << folder;
    EXPECT_NE(folder, std::filesystem::temp_directory_path() / "skivet") << "anybody could have made that";
    if (const auto* entry = ::getpwuid(::getuid()); entry && *entry->pw_dir == '/')
        EXPECT_EQ(folder, std::filesystem::path(entry->pw_dir) / ".local/share/skivet");
}
