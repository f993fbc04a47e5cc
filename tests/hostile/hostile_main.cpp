// Makes the files of hostile_files.h and runs a program with a limit, telling what it took.
//   skivet_hostile list
//   skivet_hostile make NAME FOLDER
//   skivet_hostile textures COUNT NAME FILE
//   skivet_hostile run DATA_MB SECONDS WORDS...   (0: no limit) → "exit EXIT peak MB cpu S wall S" on stderr
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>
#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <iostream>
#include <string>

#include "hostile/hostile_files.h"

using namespace skivet;
using namespace skivet::test;

namespace {

void save(const std::string& file, const Bytes& bytes) {
    std::ofstream(file, std::ios::binary).write(reinterpret_cast<const char*>(bytes.data()), static_cast<std::streamsize>(bytes.size()));
}

int run(char** words, rlim_t megabytes, rlim_t seconds) {
    const auto start = std::chrono::steady_clock::now();
    const auto child = ::fork();
    if (child == 0) {
        if (megabytes > 0) {
            const rlimit data{megabytes << 20, megabytes << 20};
            ::setrlimit(RLIMIT_DATA, &data);
        }
        if (seconds > 0) {
            const rlimit cpu{seconds, seconds};
            ::setrlimit(RLIMIT_CPU, &cpu);
        }
        ::execvp(words[0], words);
        std::perror(words[0]);
        ::_exit(127);
    }
    int status = 0;
    rusage usage{};
    ::wait4(child, &status, 0, &usage);
    const auto wall = std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
    const auto cpu = static_cast<double>(usage.ru_utime.tv_sec + usage.ru_stime.tv_sec) +
                     static_cast<double>(usage.ru_utime.tv_usec + usage.ru_stime.tv_usec) / 1e6;
    const int code = WIFEXITED(status) ? WEXITSTATUS(status) : 128 + WTERMSIG(status);
    std::fprintf(stderr, "exit %d peak %ld MB cpu %.2f s wall %.2f s\n", code, usage.ru_maxrss / 1024, cpu, wall);
    return code;
}

}  // namespace

int main(int argc, char** argv) {
    const std::string what = argc > 1 ? argv[1] : "";
    if (what == "list") {
        for (const auto& one : bombs()) std::cout << one.name << '\t' << one.what << '\n';
        return 0;
    }
    if (what == "make" && argc == 4) {
        for (const auto& [name, bytes] : bomb(argv[2]).make()) save(std::string(argv[3]) + '/' + name, bytes);
        return 0;
    }
    if (what == "textures" && argc == 5) {
        save(argv[4], zip_of_small_textures(std::strtoull(argv[2], nullptr, 10), argv[3]));
        return 0;
    }
    if (what == "run" && argc > 4) return run(argv + 4, std::strtoull(argv[2], nullptr, 10), std::strtoull(argv[3], nullptr, 10));
    std::cerr << "skivet_hostile: list, make NAME FOLDER, textures COUNT NAME FILE, or run DATA_MB SECONDS WORDS...\n";
    return 2;
}
