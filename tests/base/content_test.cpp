// Bytes on their way into a file, and the folders of our own that they and others lie in.
#include <gtest/gtest.h>

#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>
#include <filesystem>
#include <fstream>
#include <string>
#include <thread>
#include <vector>

#include "base/content.h"
#include "base/file_write.h"
#include "base/own_folders.h"
#include "support/pictures.h"
#include "support/sanitized.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// A cache folder of its own while it lives.
struct CacheAt {
    explicit CacheAt(const std::filesystem::path& place) {
        if (const char* set = std::getenv("XDG_CACHE_HOME")) before = set;
        ::setenv("XDG_CACHE_HOME", place.c_str(), 1);
    }
    ~CacheAt() {
        if (before) ::setenv("XDG_CACHE_HOME", before->c_str(), 1);
        else ::unsetenv("XDG_CACHE_HOME");
    }
    std::optional<std::string> before;
};

std::size_t files_below(const std::filesystem::path& folder) {
    std::size_t count = 0;
    for (const auto& file : std::filesystem::recursive_directory_iterator(folder)) count += file.is_regular_file();
    return count;
}

/// Memory of this process that is its own, in bytes (proc(5), "RssAnon").
std::uint64_t own_memory() {
    std::ifstream status("/proc/self/status");
    std::string word;
    while (status >> word)
        if (word == "RssAnon:") {
            std::uint64_t kilobytes = 0;
            status >> kilobytes;
            return kilobytes * 1024;
        }
    return 0;
}

}  // namespace

TEST(Contents, AreTheirBytesWhateverTheirSize) {
    TempFolder folder;
    const CacheAt cache(folder.path());
    for (const std::size_t size :
         {std::size_t{0}, std::size_t{1}, Content::kept_in_memory - 1, Content::kept_in_memory, std::size_t{300'000}}) {
        const auto bytes = random_bytes(size, 7);
        const Content moved(Bytes{bytes}), copied{ByteSpan(bytes)};
        EXPECT_TRUE(moved == bytes && copied == bytes && moved == copied) << size;
        EXPECT_EQ(moved.copy(), bytes);
        EXPECT_EQ(ByteSpan(moved).size(), size);
        moved.rest();
        EXPECT_TRUE(moved == bytes) << "it comes back, " << size;
    }
    EXPECT_FALSE(Content(Bytes(5)) == Content(Bytes(6)));
    EXPECT_FALSE(Content(Bytes(5)) == Bytes(5, std::byte{1}));
    EXPECT_EQ(files_below(folder.path()), 0u) << "no file is left to be seen, whatever ends the process";
}

TEST(Contents, PartsLiveOnWithoutTheWhole) {
    const auto bytes = random_bytes(200'000, 3);
    Content part;
    {
        const Content whole(Bytes{bytes});
        part = whole.part(1000, 150'000).part(5, 100'000);
    }
    EXPECT_TRUE(std::equal(part.begin(), part.end(), bytes.begin() + 1005));
    EXPECT_EQ(part.size(), 100'000u);
}

TEST(Contents, AreHeldInMemoryWhereNoFileCanBeMade) {
    const CacheAt cache("/proc/none");
    const auto bytes = random_bytes(100'000, 4);
    const Content content(Bytes{bytes});
    content.rest();
    EXPECT_TRUE(content == bytes);
}

TEST(Contents, OfManyThreadsDoNotMix) {
    TempFolder folder;
    const CacheAt cache(folder.path());
    std::vector<std::vector<Content>> made(4);
    std::vector<std::thread> threads;
    for (unsigned t = 0; t < 4; ++t)
        threads.emplace_back([&, t] {
            for (unsigned i = 0; i < 60; ++i) made[t].emplace_back(random_bytes(5000 + 997 * i, t * 100 + i));
        });
    for (auto& thread : threads) thread.join();
    for (unsigned t = 0; t < 4; ++t)
        for (unsigned i = 0; i < 60; ++i) EXPECT_TRUE(made[t][i] == random_bytes(5000 + 997 * i, t * 100 + i));
}

TEST(Contents, TakeNoDescriptorEach) {
    TempFolder folder;
    const CacheAt cache(folder.path());
    const auto open_files = [] {
        return std::distance(std::filesystem::directory_iterator("/proc/self/fd"), std::filesystem::directory_iterator());
    };
    const auto before = open_files();
    std::vector<Content> all;
    for (unsigned i = 0; i < 8; ++i) all.emplace_back(Bytes(i % 2 ? 20u << 20 : 9000, std::byte(i + 1)));
    EXPECT_LE(open_files(), before + 1) << "one for all the small ones";
    for (unsigned i = 0; i < 8; ++i) EXPECT_TRUE(all[i][all[i].size() - 1] == std::byte(i + 1));
}

TEST(Contents, DoNotStayInMemory) {
    TempFolder folder;
    const CacheAt cache(folder.path());
    const auto before = own_memory();
    std::vector<Content> all;
    for (unsigned i = 0; i < 100; ++i) all.emplace_back(random_bytes(1u << 20, i));
    if (!sanitized) EXPECT_LT(own_memory(), before + (30u << 20)) << "100 MB are kept";
    EXPECT_TRUE(all[99] == random_bytes(1u << 20, 99));
}

TEST(OwnFolders, AreTheUsersAlone) {
    TempFolder folder;
    const CacheAt cache(folder.path());
    const auto mode = [](const std::filesystem::path& path) {
        struct stat info {};
        return ::stat(path.c_str(), &info) == 0 ? info.st_mode & 0777 : 0u;
    };
    std::error_code code;
    make_folders(user_cache_folder() / "a/b", code);
    ASSERT_FALSE(code) << code.message();
    for (const char* part : {"", "a", "a/b"}) EXPECT_EQ(mode(user_cache_folder() / part), 0700u) << part;
    // One that an earlier version made for everybody.
    ASSERT_EQ(::chmod(user_cache_folder().c_str(), 0755), 0);
    make_folders(user_cache_folder(), code);
    EXPECT_EQ(mode(user_cache_folder()), 0700u);
    // What the user chose is as the system makes it.
    make_folders(folder / "game/out", code);
    const auto usual = ::umask(022);
    ::umask(usual);
    EXPECT_EQ(mode(folder / "game/out"), 0777u & ~usual);
    put_file(folder / "file", Bytes(1));
    make_folders(folder / "file/below", code);
    EXPECT_TRUE(code);
}

TEST(OwnFolders, LoseWhatAProcessThatWasEndedLeftBehind) {
    TempFolder folder;
    const CacheAt cache(folder.path());
    const auto child = ::fork();
    if (child == 0) ::_exit(0);
    ASSERT_GT(child, 0);
    ::waitpid(child, nullptr, 0);
    const auto temporary = std::filesystem::temp_directory_path();
    const auto of_process = [&](pid_t process, const char* end) {
        const auto place = temporary / (std::string(temporary_name) + std::to_string(process) + end);
        std::filesystem::create_directories(place / "in");
        return place;
    };
    const auto left = of_process(child, "-abcdef"), ours = of_process(::getpid(), "-abcdef");
    const auto fresh = folder_for_dragging() / "fresh", old = folder_for_dragging() / "old";
    for (const auto& one : {fresh, old}) std::filesystem::create_directories(one / "in");
    std::filesystem::last_write_time(old, std::filesystem::file_time_type::clock::now() - kept_for_dragging - std::chrono::hours(1));
    sweep_leftovers();
    EXPECT_FALSE(std::filesystem::exists(left));
    EXPECT_TRUE(std::filesystem::exists(ours)) << "its process lives";
    EXPECT_TRUE(std::filesystem::exists(fresh));
    EXPECT_FALSE(std::filesystem::exists(old));
    std::filesystem::remove_all(ours);
    {
        const TemporaryFolder one;
        EXPECT_TRUE(one.path.filename().string().starts_with(temporary_name)) << one.path;
    }
}
