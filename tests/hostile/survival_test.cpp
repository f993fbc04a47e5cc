// What happens around a process while it works: files that are cut off while they are read, threads and memory that are refused.
#include <gtest/gtest.h>

#include <fmt/format.h>
#include <sys/stat.h>
#include <filesystem>
#include <fstream>
#include <string>
#include <thread>
#include <vector>

#include "base/file_write.h"
#include "base/threads.h"
#include "container/kinds.h"
#include "hostile/hostile_files.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "support/sanitized.h"

using namespace skivet;
using namespace skivet::test;
namespace fs = std::filesystem;

namespace {

const std::string cli = our_program("skivet-cli");

/// Exit code of a shell command; 128 and a signal's number where one ended it.
Ran shell(const std::string& command) { return run_program({"sh", "-c", command + "; echo \"ended $?\""}); }
int ended(const Ran& ran) {
    const auto at = ran.output.rfind("ended ");
    return at == std::string::npos ? -1 : std::atoi(ran.output.c_str() + at + 6);
}

}  // namespace

TEST(CutOff, AMappedPageThatIsGoneIsAnErrorAndNotTheEnd) {
    TempFolder folder;
    put_file(folder / "a.bin", random_bytes(64 * 4096, 1));
    const auto view = FileView::open(folder / "a.bin").value();
    const auto all = view.bytes().value();
    const auto before = FileView::breaks();
    EXPECT_TRUE(view.intact());
    fs::resize_file(folder / "a.bin", 4096);
    unsigned sum = 0;
    for (const auto b : all.subspan(4096)) sum += std::to_integer<unsigned>(b);  // would be the end of the process
    EXPECT_EQ(sum, 0u);
    EXPECT_EQ(FileView::breaks(), before + 1) << "the rest of the map went at once";
    ASSERT_FALSE(view.intact());
    EXPECT_EQ(view.intact().error().code, ErrorCode::stale);
    EXPECT_NE(view.intact().error().message().find("a.bin became shorter while it was open"), std::string::npos);
    // As large as before again, but what was read meanwhile was not the file.
    fs::resize_file(folder / "a.bin", 64 * 4096);
    ASSERT_FALSE(view.bytes());
    EXPECT_NE(view.bytes().error().message().find("a.bin could not be read"), std::string::npos);
    EXPECT_TRUE(FileView::open(folder / "a.bin").value().intact());
}

TEST(CutOff, OtherFilesThatAreOpenAreNotTouched) {
    TempFolder folder;
    const auto content = random_bytes(300'000, 2);
    std::vector<FileView> others;
    for (int i = 0; i < 600; ++i) {  // more than one block of places
        put_file(folder / std::to_string(i), content);
        others.push_back(FileView::open(folder / std::to_string(i)).value());
    }
    const auto all = others[300].bytes().value();
    fs::resize_file(folder / "300", 0);
    EXPECT_EQ(all[200'000], std::byte{0});
    for (std::size_t i = 0; i < others.size(); i += 37) {
        if (i == 300) continue;
        const auto bytes = others[i].bytes();
        ASSERT_TRUE(bytes) << i;
        EXPECT_TRUE(std::equal(bytes->begin(), bytes->end(), content.begin()));
    }
    EXPECT_FALSE(others[300].bytes());
}

TEST(CutOff, WhatIsReadMeanwhileIsReadAgain) {
    TempFolder folder;
    put_file(folder / "a.bin", random_bytes(50'000, 1));
    put_file(folder / "b.bin", random_bytes(50'000, 2));
    const auto a = FileView::open(folder / "a.bin").value(), b = FileView::open(folder / "b.bin").value();
    int times = 0;
    const auto read = [&]() -> Result<Bytes> {
        SKIVET_TRY(const auto bytes, b.bytes());
        if (++times == 1) {
            // Another's archive goes while this one is read: this one is right, and is read twice.
            const auto other = a.bytes().value();
            fs::resize_file(folder / "a.bin", 10);
            EXPECT_EQ(other[40'000], std::byte{0});
        }
        return Bytes(bytes.begin(), bytes.end());
    };
    EXPECT_EQ(unless_broken(read), random_bytes(50'000, 2));
    EXPECT_EQ(times, 2);
}

TEST(CutOff, CommandsEndByThemselvesWhateverTheMoment) {
    TempFolder folder;
    const auto archive = folder / "large.zip";
    std::vector<ZipItem> items;
    for (unsigned i = 0; i < 24; ++i) items.push_back({fmt::format("{}.dds", i), make_dds(Format::BC7, 512, 512, 0, i)});
    const auto whole = make_zip(items);
    for (const std::string words : {"list --textures", "export --as dds", "verify", "roles"})
        for (int round = 0; round < 4; ++round) {
            put_file(archive, whole);
            std::thread cutter([&] {
                std::this_thread::sleep_for(std::chrono::milliseconds(3 + 4 * round));  // any moment will do
                fs::resize_file(archive, whole.size() / 5);
            });
            const auto ran = shell(cli + ' ' + words + ' ' + archive.string() +
                                   (words.starts_with("export") ? " --to " + (folder / "out").string() : "") + " 2>&1");
            cutter.join();
            EXPECT_LT(ended(ran), 128) << words << '\n' << ran.output;
            EXPECT_GE(ended(ran), 0) << words << '\n' << ran.output;
        }
}

TEST(Refused, WithFewThreadsOrNoneTheWorkIsTheSame) {
    if (sanitized) GTEST_SKIP() << "a sanitizer wants to be loaded first";
    TempFolder folder;
    put_file(folder / "some.zip", zip_of_small_textures(500, "ride_%.dds"));
    const auto words = "list --textures --json " + (folder / "some.zip").string();
    const auto right = shell(cli + ' ' + words);
    ASSERT_EQ(ended(right), 0) << right.output;
    for (const int threads : {0, 1, 2, 3}) {
        const auto ran =
            shell(fmt::format("LD_PRELOAD={}/refuse_threads.so SKIVET_THREADS={} {} {}", programs_folder, threads, cli, words));
        EXPECT_TRUE(ran.output == right.output)
            << threads << " threads: " << ran.output.substr(ran.output.size() - std::min<std::size_t>(ran.output.size(), 300));
    }
}

TEST(Refused, MemoryThatIsNotThereIsSaid) {
    if (sanitized) GTEST_SKIP() << "a sanitizer wants more itself";
    TempFolder folder;
    for (const auto& [name, bytes] : bomb("large.zip").make()) put_file(folder / name, bytes);
    // Of the whole picture in PNG: 256 MB as it is painted.
    const auto ran = shell("ulimit -d 200000; " + cli + " export --as png " + (folder / "large.zip").string() + " --to " +
                           (folder / "out").string() + " 2>&1");
    EXPECT_TRUE(ended(ran) == 1 || ended(ran) == 4) << ran.output;
    EXPECT_NE(ran.output.find("not enough memory"), std::string::npos) << ran.output;
}

TEST(Refused, ThreadsThatCanBeHadAreCounted) {
    EXPECT_EQ(threads_to_be_had(3), 3u);
    EXPECT_EQ(threads_to_be_had(0), 0u);
}
