// skivet-thumbnailer FILE PNG [-s SIZE]: a small picture of a texture for file managers, by the freedesktop.org thumbnail specification's
// way of calling programs. Files come from anywhere, so the process takes itself everything it does not need before it reads one.
#include <sys/prctl.h>
#include <sys/resource.h>
#include <charconv>
#include <cstdio>
#include <cstring>
#include <string_view>

#include "base/file_write.h"
#include "catalog/picture_facts.h"
#include "pixel/alpha_use.h"
#include "texture/png.h"

namespace {

constexpr std::uint32_t smallest = 16, largest = 1024;

void limit(__rlimit_resource what, rlim_t most) {
    const rlimit both{most, most};
    ::setrlimit(what, &both);
}

/// A file that makes the decoders run away ends the process, not the desktop's session.
void give_up_rights() {
    ::prctl(PR_SET_NO_NEW_PRIVS, 1, 0, 0, 0);
#ifndef __SANITIZE_ADDRESS__  // which takes terabytes of addresses for itself
    limit(RLIMIT_AS, rlim_t{3} << 30);
#endif
    limit(RLIMIT_CPU, 20);
    limit(RLIMIT_FSIZE, 64 << 20);
    limit(RLIMIT_CORE, 0);
}

int usage(std::FILE* to, int code) {
    std::fputs(
        "Usage: skivet-thumbnailer FILE PNG [-s SIZE]\n"
        "Writes a picture of a texture, at most SIZE (16 to 1024, otherwise 256) pixels a side.\n"
        "DDS, KTX, KTX2, TGA, OpenEXR and what else Skivet reads as one file.\n"
        "Exit codes: 0 done, 2 wrong use, 3 the file cannot be shown, 4 the system failed.\n",
        to);
    return code;
}

int refuse(const skivet::Error& error) {
    std::fprintf(stderr, "skivet-thumbnailer: %s\n", error.message().c_str());
    return skivet::exit_code(error.code);
}

}  // namespace

int main(int argc, char** argv) {
    using namespace skivet;
    const char* places[2] = {};
    int given = 0;
    std::uint32_t size = 256;
    for (int i = 1; i < argc; ++i) {
        const std::string_view word = argv[i];
        if (word == "--help" || word == "-h") return usage(stdout, 0);
        if (word == "--version") return std::puts("skivet-thumbnailer " SKIVET_VERSION), 0;
        if (word == "-s" || word == "--size") {
            const std::string_view number = i + 1 < argc ? argv[++i] : "";
            const auto [rest, code] = std::from_chars(number.data(), number.data() + number.size(), size);
            if (code != std::errc() || rest != number.data() + number.size() || size < smallest || size > largest) return usage(stderr, 2);
        } else if (given < 2) {
            places[given++] = argv[i];
        } else {
            return usage(stderr, 2);
        }
    }
    if (given != 2) return usage(stderr, 2);
    give_up_rights();
    try {
        ReadLimits limits;
        limits.inflated_bytes = 512u << 20;
        limits.image_texels = 1u << 27;
        auto bytes = read_file(places[0], limits.inflated_bytes);
        if (!bytes) return refuse(bytes.error());
        const auto texture = TextureFile::open(TextureKinds::standard(), std::move(*bytes), places[0], limits);
        if (!texture) return refuse(texture.error().within(places[0]));
        auto picture = thumbnail(*texture, size);
        if (!picture) return refuse(picture.error().within(places[0]));
        // Alpha that is no transparency would hide the picture.
        const auto use = alpha_facts(*picture).use;
        if (use == AlphaUse::empty || use == AlphaUse::mask)
            for (auto& texel : picture->texels) texel[3] = 255;
        const auto png = write_png(*picture);
        if (!png) return refuse(png.error());
        if (auto written = write_file(places[1], *png, {.make_folders = false}); !written) return refuse(written.error());
    } catch (const std::bad_alloc&) {
        std::fputs("skivet-thumbnailer: the file needs more memory than it may have\n", stderr);
        return 3;
    }
    return 0;
}
