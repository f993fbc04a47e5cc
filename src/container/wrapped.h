#pragma once
#include "container/kinds.h"

namespace skivet {

/// Takes the packing off a whole file and puts it on again. `unwrap` gives what is inside; `wrap` the whole new file.
class Wrapper {
public:
    virtual ~Wrapper() = default;
    [[nodiscard]] virtual std::string name() const = 0;    ///< "gzip"
    [[nodiscard]] virtual std::string reason() const = 0;  ///< how it was recognized
    [[nodiscard]] virtual Result<Bytes> unwrap(ByteSpan file) const = 0;
    [[nodiscard]] virtual Result<Bytes> wrap(ByteSpan file, Bytes content) const = 0;
    /// Name of what is inside, from the wrapped file's name.
    [[nodiscard]] virtual std::string inner_name(const std::string& file_name) const;
};

/// A wrapped file as a container: an archive inside shows its entries as if it were not wrapped, anything else is one entry.
[[nodiscard]] Result<std::shared_ptr<const Container>> open_wrapped(const ReadContext& context, FileView file,
                                                                    std::shared_ptr<const Wrapper> wrapper);

/// gzip, zlib, Zstandard, LZ4 frames, XZ, LZMA and bzip2 around a whole file.
[[nodiscard]] std::shared_ptr<const ContainerKind> wrapped_kind();

}  // namespace skivet
