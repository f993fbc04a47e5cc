// What sifting finds of textures without a header.
//   skivet_sift_check mix FIRST LAST [PICTURES-DIR [FILLERS-DIR]]   40 textures in 20 MB of other data, from seeds; pictures (PNG, JPEG)
//   and
//                                                           other data (any files) from folders instead of drawn ones
//   skivet_sift_check files FILE...                         what it says of files that hold none
//   -v before the command: each miss and each false find. DUMP=FILE in the environment: the last mixture is written there, to look into it
#include <fmt/format.h>

#include <chrono>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <map>

#include "base/file_view.h"
#include "sift/bare.h"
#include "support/headerless.h"

using namespace skivet;
using namespace skivet::test;

namespace {

std::vector<std::filesystem::path> files_in(const char* folder) {
    std::vector<std::filesystem::path> out;
    for (const auto& e : std::filesystem::recursive_directory_iterator(folder, std::filesystem::directory_options::skip_permission_denied))
        if (e.is_regular_file() && e.file_size() > 4096) out.push_back(e.path());
    std::sort(out.begin(), out.end());
    return out;
}

Image halved(const Image& image) {
    Image out(image.width / 2, image.height / 2);
    for (std::uint32_t y = 0; y < out.height; ++y)
        for (std::uint32_t x = 0; x < out.width; ++x)
            for (std::size_t c = 0; c < 4; ++c)
                out.at(x, y)[c] = static_cast<std::uint8_t>((image.at(2 * x, 2 * y)[c] + image.at(2 * x + 1, 2 * y)[c] +
                                                             image.at(2 * x, 2 * y + 1)[c] + image.at(2 * x + 1, 2 * y + 1)[c] + 2u) /
                                                            4);
    return out;
}

/// Pictures of a folder, halved as often as the size allows, and what is in their middle. Ones with nothing to see in half of their area
/// are left out: an icon on a large empty ground does not show where it begins.
PictureMaker pictures_of(const char* folder) {
    return [files = files_in(folder)](std::uint32_t width, std::uint32_t height, unsigned seed) {
        std::mt19937 random(seed);
        for (unsigned tries = 0; tries < 200; ++tries) {
            const auto& path = files[random() % files.size()];
            const auto view = FileView::open(path);
            if (!view || view->size() > (8u << 20)) continue;
            const auto bytes = *view->bytes();
            const auto texture =
                TextureFile::open(TextureKinds::standard(), Bytes(bytes.begin(), bytes.end()), path.string(), ReadLimits{});
            if (!texture || texture->layout.desc.width < width || texture->layout.desc.height < height) continue;
            auto whole = texture->decode();
            if (!whole) continue;
            auto image = std::move(*whole);
            while (image.width >= 2 * width && image.height >= 2 * height) image = halved(image);
            const auto left = (image.width - width) / 2, top = (image.height - height) / 2;
            Image out(width, height);
            std::size_t tiles = 0, seen = 0;
            for (std::uint32_t y = 0; y < height; ++y)
                for (std::uint32_t x = 0; x < width; ++x) out.at(x, y) = image.at(x + left, y + top);
            for (std::uint32_t y = 0; y + 8 <= height; y += 8)
                for (std::uint32_t x = 0; x + 8 <= width; x += 8) {
                    bool differs = false;
                    for (std::uint32_t i = 0; i < 64; ++i) {
                        const auto &a = out.at(x, y), &b = out.at(x + i % 8, y + i / 8);
                        for (std::size_t c = 0; c < 3; ++c) differs = differs || std::abs(int{a[c]} - int{b[c]}) > 3;
                    }
                    ++tiles;
                    seen += differs;
                }
            if (seen * 2 > tiles) return out;
        }
        return drawn_picture(width, height, seed);
    };
}

FillMaker parts_of(const char* folder) {
    return [files = files_in(folder)](std::size_t size, unsigned seed) {
        std::mt19937 random(seed);
        const auto& path = files[random() % files.size()];
        const auto view = FileView::open(path);
        if (!view) return random_bytes(size, seed);
        const auto bytes = *view->bytes();
        const auto from = bytes.size() > size ? random() % (bytes.size() - size) : 0;
        const auto part = bytes.subspan(from, std::min(size, bytes.size() - from));
        return Bytes(part.begin(), part.end());
    };
}

std::string text(const TextureDesc& d, bool palette) {
    return fmt::format("{}{} {}x{} {} mips", palette ? "palette of " : "", info(d.format).name, d.width, d.height, d.mips);
}

}  // namespace

int main(int argc, char** argv) {
    bool verbose = false;
    if (argc > 1 && !std::strcmp(argv[1], "-v")) {
        verbose = true;
        --argc, ++argv;
    }
    const CancelToken cancel;
    const auto timed = [&](ByteSpan data, double& seconds) {
        const auto start = std::chrono::steady_clock::now();
        auto found = find_bare_textures(data, cancel);
        seconds += std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
        return *found;
    };
    if (argc > 3 && !std::strcmp(argv[1], "mix")) {
        MixtureOptions options;
        if (argc > 4 && *argv[4]) options.picture = pictures_of(argv[4]);
        if (argc > 5) options.fill = parts_of(argv[5]);
        std::map<std::string, std::array<int, 3>> by_format;  // all, found, exact
        std::size_t all = 0, right = 0, exact = 0, wrong = 0, bytes = 0, worst = 1000;
        double seconds = 0;
        for (int seed = std::atoi(argv[2]); seed <= std::atoi(argv[3]); ++seed) {
            const auto mix = mixture(static_cast<unsigned>(seed), options);
            if (const auto* file = std::getenv("DUMP"))
                std::ofstream(file, std::ios::binary)
                    .write(reinterpret_cast<const char*>(mix.bytes.data()), static_cast<std::streamsize>(mix.bytes.size()));
            const auto found = timed(mix.bytes, seconds);
            bytes += mix.bytes.size();
            std::vector<bool> used(found.size());
            std::size_t here = 0;
            for (const auto& t : mix.textures) {
                ++all;
                const auto key = std::string(t.paletted ? "palette" : info(t.desc.format).name);
                ++by_format[key][0];
                std::string told;
                bool hit = false;
                for (std::size_t i = 0; i < found.size(); ++i) {
                    const auto& f = found[i];
                    if (f.at >= t.at + t.size || f.at + f.size <= t.at) continue;
                    told += fmt::format("  {:#x}+{} {}", f.at, f.size, text(f.desc, f.palette_bits));
                    if (hit || !found_as(t, f)) continue;
                    hit = true;
                    used[i] = true;
                    ++right, ++here;
                    ++by_format[key][1];
                    const bool whole = f.at == t.at && f.desc.height == t.desc.height && f.desc.mips == t.desc.mips;
                    exact += whole;
                    by_format[key][2] += whole;
                }
                if (verbose && !(hit && used.size() && told.find(fmt::format("{:#x}+{} ", t.at, t.size)) != std::string::npos))
                    fmt::print("seed {} {} {:#x}+{} {}: {}\n", seed, hit ? "inexact" : "MISSED", t.at, t.size, text(t.desc, t.paletted),
                               told);
            }
            for (std::size_t i = 0; i < found.size(); ++i)
                if (!used[i]) {
                    ++wrong;
                    if (verbose)
                        fmt::print("seed {} FALSE {:#x}+{} {} {:.2f}\n", seed, found[i].at, found[i].size,
                                   text(found[i].desc, found[i].palette_bits), found[i].confidence);
                }
            worst = std::min(worst, here);
        }
        for (const auto& [name, n] : by_format)
            fmt::print("{:<10} {:>4} of {:>4} found, {:>4} with begin, height and mips\n", name, n[1], n[0], n[2]);
        fmt::print("{} of {} found ({:.1f} %), at least {} of a file; {} exact; {} false; {:.0f} MB/s\n", right, all,
                   100.0 * static_cast<double>(right) / static_cast<double>(all), worst, exact, wrong,
                   static_cast<double>(bytes) / seconds / 1e6);
        return 0;
    }
    if (argc > 2 && !std::strcmp(argv[1], "files")) {
        std::size_t count = 0, bytes = 0, finds = 0;
        double seconds = 0;
        for (int i = 2; i < argc; ++i) {
            const auto view = FileView::open(argv[i]);
            if (!view) continue;
            const auto data = *view->bytes();
            const auto found = timed(data, seconds);
            ++count;
            bytes += data.size();
            finds += found.size();
            for (const auto& f : found)
                if (verbose) fmt::print("{} {:#x}+{} {} {:.2f}\n", argv[i], f.at, f.size, text(f.desc, f.palette_bits), f.confidence);
        }
        fmt::print("{} files, {:.0f} MB: {} finds, {:.0f} MB/s\n", count, static_cast<double>(bytes) / 1e6, finds,
                   static_cast<double>(bytes) / seconds / 1e6);
        return 0;
    }
    fmt::print(stderr, "usage: see the head of sift_check.cpp\n");
    return 2;
}
