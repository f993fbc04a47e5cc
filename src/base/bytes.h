#pragma once
// Bounded reading and writing of integers: a reader cannot leave its span.
#include <bit>
#include <cstring>
#include <span>

#include "base/result.h"

namespace skivet {

using Byte = std::byte;
using Bytes = std::vector<std::byte>;
using ByteSpan = std::span<const std::byte>;

enum class ByteOrder { little, big };

/// Reads an unsigned integer of `width` bytes (1 to 8) at `data`; the caller guarantees the room.
[[nodiscard]] std::uint64_t load_uint(const std::byte* data, unsigned width, ByteOrder order);
/// Writes the low `width` bytes (1 to 8) of `value`; the caller guarantees the room.
void store_uint(std::byte* data, std::uint64_t value, unsigned width, ByteOrder order);

// One move on a little-endian machine: these stand in the innermost loops of the codecs.
template <class T>
[[nodiscard]] T load_le(const std::byte* data) {
    if constexpr (std::endian::native == std::endian::little) {
        T value;
        std::memcpy(&value, data, sizeof(T));
        return value;
    }
    return static_cast<T>(load_uint(data, sizeof(T), ByteOrder::little));
}
template <class T>
void store_le(std::byte* data, T value) {
    if constexpr (std::endian::native == std::endian::little) std::memcpy(data, &value, sizeof(T));
    else store_uint(data, static_cast<std::uint64_t>(value), sizeof(T), ByteOrder::little);
}

/// A position in a span; every read is checked and fails with the position.
class ByteReader {
public:
    explicit ByteReader(ByteSpan data, std::uint64_t origin = 0) : data_(data), origin_(origin) {}

    [[nodiscard]] std::size_t position() const { return position_; }
    [[nodiscard]] std::size_t remaining() const { return data_.size() - position_; }
    [[nodiscard]] Status seek(std::uint64_t position);
    [[nodiscard]] Status skip(std::uint64_t count);
    /// `count` bytes as a view into the data.
    [[nodiscard]] Result<ByteSpan> take(std::uint64_t count);
    [[nodiscard]] Result<std::uint64_t> uint(unsigned width, ByteOrder order = ByteOrder::little);
    template <class T>
    [[nodiscard]] Result<T> le() {
        SKIVET_TRY(const auto value, uint(sizeof(T)));
        return static_cast<T>(value);
    }

private:
    ByteSpan data_;
    std::uint64_t origin_;  ///< where the span starts in its file, for error positions
    std::size_t position_ = 0;
};

/// Appends integers and bytes to a buffer.
class ByteWriter {
public:
    Bytes bytes;
    template <class T>
    void le(T value) {
        bytes.resize(bytes.size() + sizeof(T));
        store_le<T>(bytes.data() + bytes.size() - sizeof(T), value);
    }
    void put(ByteSpan data) { bytes.insert(bytes.end(), data.begin(), data.end()); }
    void put(std::string_view text) { put(std::as_bytes(std::span(text.data(), text.size()))); }
};

[[nodiscard]] inline ByteSpan as_bytes(std::string_view text) { return std::as_bytes(std::span(text.data(), text.size())); }
[[nodiscard]] std::string as_text(ByteSpan data);
/// data[offset, offset + size), or an error that names both.
[[nodiscard]] Result<ByteSpan> slice(ByteSpan data, std::uint64_t offset, std::uint64_t size);

}  // namespace skivet
