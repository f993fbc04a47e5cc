// Packer programs of the user's own: what they may do, and what stops them.
#include <gtest/gtest.h>

#include <chrono>
#include <filesystem>
#include <string>
#include <thread>
#include <vector>

#include "base/packer_program.h"
#include "support/pictures.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Programs : testing::Test {
    TempFolder folder;
    PackerProgram script(const std::string& text) {
        put_file(folder / "packer.sh", bytes_of("#!/bin/sh\n" + text));
        std::filesystem::permissions(folder / "packer.sh", std::filesystem::perms::owner_all);
        return {"brass", {(folder / "packer.sh").string(), "{size}", "{packed}"}, {(folder / "packer.sh").string(), "pack"}};
    }
    static double seconds_of(const std::function<void()>& what) {
        const auto start = std::chrono::steady_clock::now();
        what();
        return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
    }
};

constexpr ProgramLimits quick{std::chrono::milliseconds(1500), 1ull << 30, 1 << 20, 32};

}  // namespace

TEST_F(Programs, GetTheirSizesAndGiveWhatTheyWrite) {
    const auto out = run_unpacker(script("printf '%s %s ' \"$1\" \"$2\"; cat"), bytes_of("horse"), 10);
    ASSERT_TRUE(out) << out.error().message();
    EXPECT_EQ(*out, bytes_of("10 5 horse"));
    EXPECT_EQ(*run_unpacker(script("cat"), {}, std::nullopt), Bytes{});
    const auto large = random_bytes(3'000'000, 4);
    EXPECT_EQ(*run_packer(script("cat"), large), large) << "more than a pipe holds, both ways";
    EXPECT_EQ(*run_packer(script("echo short"), large), bytes_of("short\n")) << "a program need not read everything";
}

TEST_F(Programs, SeeNothingOfTheUsersAndWriteNowhere) {
    put_file(folder / "secret/diary.txt", bytes_of("dear diary"));
    const auto secret = (folder / "secret/diary.txt").string();
    // Neither what lies beside the packer nor anything else of the user's is there; only the packer itself.
    const auto out = run_packer(script("ls /home /root /etc 2>/dev/null | grep -v -e alternatives -e ld.so.cache; echo x > \"" +
                                       (folder / "left.txt").string() + "\" 2>/dev/null; echo $HOME; cat /proc/net/dev | wc -l"),
                                {});
    ASSERT_TRUE(out) << out.error().message();
    EXPECT_EQ(as_text(*out).find_first_not_of("/etc:\n0123456789 "), std::string::npos) << as_text(*out);
    EXPECT_FALSE(std::filesystem::exists(folder / "left.txt"));
    TempFolder elsewhere;
    put_file(elsewhere / "letter.txt", bytes_of("dear friend"));
    for (const auto& file : {(elsewhere / "letter.txt").string(), secret}) {
        const auto letter = run_packer(script("cat \"" + file + "\" || echo nothing"), {});
        ASSERT_TRUE(letter) << letter.error().message();
        EXPECT_EQ(*letter, bytes_of("nothing\n"));
    }
}

TEST_F(Programs, HostileOnesEndWithinTheLimits) {
    const std::pair<const char*, const char*> hostile[] = {
        {"endless output", "yes"},
        {"sleep", "sleep 100"},
        {"sleep that ignores signals", "trap '' TERM INT HUP; sleep 100; sleep 100"},
        {"children that stay", "for i in 1 2 3 4 5 6 7 8; do (sleep 100 &) ; done; sleep 100"},
        {"never reads", "exec 0<&-; sleep 100"},
        {"says much and nothing", "yes >&2"},
        {"closes its output and stays", "exec >&- 2>&-; sleep 100"},
    };
    for (const auto& one : hostile) {
        const auto *const name = one.first, *const text = one.second;
        const auto seconds = seconds_of([&] {
            const auto out = run_packer(script(text), random_bytes(200'000, 1), quick);
            ASSERT_FALSE(out) << name;
            EXPECT_EQ(out.error().code, ErrorCode::limit) << name << ": " << out.error().message();
        });
        EXPECT_LT(seconds, 20) << name;
    }
    // Nothing of them is left.
    std::string left;
    for (int i = 0; i < 50; ++i) {
        left = run_program({"ps", "-eo", "args"}).output;
        if (left.find(folder.path().string()) == std::string::npos) break;
        std::this_thread::sleep_for(std::chrono::milliseconds(100));
    }
    EXPECT_EQ(left.find(folder.path().string()), std::string::npos) << left;
    ProgramLimits small = quick;
    small.memory = 64 << 20;
    const auto hungry = run_packer(script("head -c 200000000 /dev/zero | tr '\\0' x | sort > /dev/null || exit 7; exit 7"), {}, small);
    EXPECT_FALSE(hungry);
}

TEST_F(Programs, FailuresAreSaidByName) {
    EXPECT_EQ(run_unpacker(script("echo 'bad brass' >&2; exit 3"), bytes_of("x"), 1).error().message(),
              "packer brass: the program ended with 3: bad brass. The data is not what it takes, or its command in the project's settings "
              "is wrong");
    EXPECT_EQ(run_unpacker(script("echo too long"), bytes_of("x"), 3).error().code, ErrorCode::limit);
    EXPECT_EQ(run_unpacker(script("printf ab"), bytes_of("x"), 3).error().message(), "packer brass: unpacks to 2 bytes, should be 3");
    const PackerProgram gone{"brass", {(folder / "no-such").string()}, {}};
    EXPECT_EQ(run_unpacker(gone, bytes_of("x"), 3).error().code, ErrorCode::missing);
    EXPECT_EQ(run_packer(gone, bytes_of("x")).error().message(),
              "packer brass: has no command for packing, so its entries can only be read. Name one in the project's settings");
}

TEST(PackerPrograms, CommandsAreWordsNotAShells) {
    EXPECT_EQ(*command_words("brass unpack {size}"), (std::vector<std::string>{"brass", "unpack", "{size}"}));
    EXPECT_EQ(*command_words(" '/my tools/brass'  --as=\"a b\" "), (std::vector<std::string>{"/my tools/brass", "--as=a b"}));
    EXPECT_EQ(*command_words("a ''"), (std::vector<std::string>{"a", ""}));
    EXPECT_EQ(command_words("'open").error().code, ErrorCode::usage);
    EXPECT_EQ(command_words("   ").error().code, ErrorCode::usage);
    for (const std::vector<std::string>& words :
         {std::vector<std::string>{"a b", "c\"d", ""}, {"plain", "$HOME;rm"}, {"both ' and \"", "\"'\"", "'"}})
        EXPECT_EQ(*command_words(command_text(words)), words);
    PackerPrograms ring;
    ring.add({"brass", {"a"}, {}});
    ring.add({"brass", {"b"}, {}});
    ASSERT_EQ(ring.all().size(), 1u);
    EXPECT_EQ(ring.find("brass")->unpack.front(), "b");
    ring.remove("brass");
    EXPECT_EQ(ring.find("brass"), nullptr);
}
