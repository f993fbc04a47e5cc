// Compressed streams by and for their own tools: gzip, zstd, lz4, xz, bzip2.
#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "base/pack.h"
#include "support/pictures.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Tool {
    Packing packing;
    const char* name;
    std::string pack, unpack;  ///< shell words; %in and %out stand for files
};
const std::vector<Tool> tools = {{Packing::gzip, "gzip", "gzip -c %in > %out", "gzip -dc %in > %out"},
                                 {Packing::zstd, "zstd", "zstd -q -19 --check -c %in > %out", "zstd -q -d -c < %in > %out"},
                                 {Packing::lz4_frame, "lz4", "lz4 -q -B4 -BD -c %in > %out", "lz4 -q -d -c < %in > %out"},
                                 {Packing::xz, "xz", "xz -c --check=sha256 %in > %out", "xz -dc < %in > %out"},
                                 {Packing::lzma_alone, "lzma", "xz --format=lzma -c %in > %out", "xz --format=lzma -dc < %in > %out"},
                                 {Packing::bzip2, "bzip2", "bzip2 -3 -c %in > %out", "bzip2 -dc < %in > %out"}};

class Tools : public testing::TestWithParam<Tool> {
protected:
    TempFolder folder;
    void run(std::string words, const char* in, const char* out) {
        const auto put = [&](const char* name, const std::string& value) {
            words.replace(words.find(name), std::strlen(name), "'" + value + "'");
        };
        put("%in", (folder / in).string());
        put("%out", (folder / out).string());
        const auto ran = run_program({"sh", "-c", words});
        ASSERT_EQ(ran.code, 0) << words << ": " << ran.output;
    }
};
INSTANTIATE_TEST_SUITE_P(Of, Tools, testing::ValuesIn(tools), [](const auto& p) { return p.param.name; });

}  // namespace

TEST_P(Tools, ReadOursAndWeReadTheirs) {
    auto data = random_bytes(200'000, 3);
    for (std::size_t i = 0; i < data.size(); i += 3) data[i] = std::byte{1};
    put_file(folder / "plain", data);
    run(GetParam().pack, "plain", "packed");
    const auto theirs = get_file(folder / "packed");
    EXPECT_EQ(packing_at(theirs), GetParam().packing);
    const auto unpacked = unpack(GetParam().packing, theirs, std::nullopt, ReadLimits{});
    ASSERT_TRUE(unpacked) << unpacked.error().message();
    EXPECT_EQ(*unpacked, data);
    data[1000] ^= std::byte{1};
    const auto ours = pack(GetParam().packing, data, 0, theirs);
    ASSERT_TRUE(ours);
    put_file(folder / "ours", *ours);
    run(GetParam().unpack, "ours", "back");
    EXPECT_EQ(get_file(folder / "back"), data);
    EXPECT_LT(ours->size(), theirs.size() * 3 / 2) << "packed about as well";
}

TEST(PackedLike, TheOlderStreamsManner) {
    TempFolder folder;
    const auto data = random_bytes(5000, 1);
    put_file(folder / "a name.bin", data);
    const auto path = (folder / "a name.bin").string();
    ASSERT_EQ(run_program({"sh", "-c",
                           "gzip -k '" + path + "'; xz -k --check=crc32 '" + path + "'; zstd -q --no-check '" + path +
                               "'; lz4 -q -B5 --content-size '" + path + "' '" + path + ".lz4'"})
                  .code,
              0);
    const auto like = [&](Packing packing, const char* ending) {
        const auto theirs = get_file(path + ending);
        return std::pair(theirs, *pack(packing, data, 0, theirs));
    };
    const auto [gz, our_gz] = like(Packing::gzip, ".gz");
    EXPECT_EQ(Bytes(our_gz.begin(), our_gz.begin() + 21), Bytes(gz.begin(), gz.begin() + 21)) << "time and name (RFC 1952) stay";
    const auto [xz, our_xz] = like(Packing::xz, ".xz");
    EXPECT_EQ(our_xz[7], xz[7]) << "the kind of check";
    const auto [zst, our_zst] = like(Packing::zstd, ".zst");
    EXPECT_EQ(our_zst[4] & std::byte{4}, zst[4] & std::byte{4}) << "no checksum";
    const auto [lz4, our_lz4] = like(Packing::lz4_frame, ".lz4");
    EXPECT_EQ(our_lz4[4], lz4[4]) << "flags";
    EXPECT_EQ(our_lz4[5], lz4[5]) << "block size";
}
