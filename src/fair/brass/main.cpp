// The packer program of Brindle Fair: what a modder may have for a packer that nobody may ship. Reads its input and writes its output.
//
//     fair-brass pack
//     fair-brass unpack SIZE
//
// Each byte is written as its difference to the byte eight before it; a zero byte and a count stand for a run of up to 255 zeros.
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <vector>

namespace {

using Bytes = std::vector<unsigned char>;

Bytes read_all() {
    Bytes out;
    unsigned char buffer[65536];
    for (std::size_t n; (n = std::fread(buffer, 1, sizeof buffer, stdin)) > 0;) out.insert(out.end(), buffer, buffer + n);
    return out;
}

int write_all(const Bytes& data) {
    return std::fwrite(data.data(), 1, data.size(), stdout) == data.size() && std::fflush(stdout) == 0 ? 0 : 1;
}

int wrong(const char* what) {
    std::fprintf(stderr, "fair-brass: %s\n", what);
    return 2;
}

unsigned char before(const Bytes& data, std::size_t at) { return at < 8 ? 0 : data[at - 8]; }

Bytes pack(const Bytes& plain) {
    Bytes out = {'B', 'R', 'S'};
    for (std::size_t i = 0; i < plain.size();) {
        std::size_t run = 0;
        while (run < 255 && i + run < plain.size() && plain[i + run] == before(plain, i + run)) ++run;
        if (run == 0) {
            out.push_back(static_cast<unsigned char>(plain[i] - before(plain, i)));
            ++i;
            continue;
        }
        out.push_back(0);
        out.push_back(static_cast<unsigned char>(run));
        i += run;
    }
    return out;
}

}  // namespace

int main(int count, char** words) {
    const auto in = read_all();
    if (count == 2 && std::strcmp(words[1], "pack") == 0) return write_all(pack(in));
    if (count != 3 || std::strcmp(words[1], "unpack") != 0) return wrong("fair-brass pack, or fair-brass unpack SIZE");
    const auto size = std::strtoull(words[2], nullptr, 10);
    if (in.size() < 3 || std::memcmp(in.data(), "BRS", 3) != 0) return wrong("this is no brass");
    Bytes out;
    for (std::size_t i = 3; i < in.size() && out.size() < size; ++i) {
        if (in[i] != 0) {
            out.push_back(static_cast<unsigned char>(in[i] + before(out, out.size())));
            continue;
        }
        if (++i == in.size()) return wrong("the data ends early");
        for (unsigned n = in[i]; n > 0 && out.size() < size; --n) out.push_back(before(out, out.size()));
    }
    if (out.size() != size) return wrong("the data ends early");
    return write_all(out);
}
