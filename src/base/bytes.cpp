#include "base/bytes.h"

#include "base/phrase.h"

namespace skivet {

std::uint64_t load_uint(const std::byte* data, unsigned width, ByteOrder order) {
    std::uint64_t value = 0;
    for (unsigned i = 0; i < width; ++i) {
        const unsigned at = order == ByteOrder::big ? i : width - 1 - i;
        value = value << 8 | static_cast<std::uint64_t>(data[at]);
    }
    return value;
}

void store_uint(std::byte* data, std::uint64_t value, unsigned width, ByteOrder order) {
    for (unsigned i = 0; i < width; ++i) {
        const unsigned at = order == ByteOrder::little ? i : width - 1 - i;
        data[at] = static_cast<std::byte>(value >> (8 * i));
    }
}

Status ByteReader::seek(std::uint64_t position) {
    if (position > data_.size())
        return fail_at(ErrorCode::damaged, origin_ + data_.size(), phrase("points to byte {}, past the end", grouped(position)));
    position_ = static_cast<std::size_t>(position);
    return {};
}

Status ByteReader::skip(std::uint64_t count) {
    if (count > remaining())
        return fail_at(ErrorCode::damaged, origin_ + position_, phrase("needs {} bytes, has {}", grouped(count), grouped(remaining())));
    position_ += static_cast<std::size_t>(count);
    return {};
}

Result<ByteSpan> ByteReader::take(std::uint64_t count) {
    const auto start = position_;
    SKIVET_CHECK(skip(count));
    return data_.subspan(start, static_cast<std::size_t>(count));
}

Result<std::uint64_t> ByteReader::uint(unsigned width, ByteOrder order) {
    SKIVET_TRY(const auto raw, take(width));
    return load_uint(raw.data(), width, order);
}

std::string as_text(ByteSpan data) {
    std::string text(data.size(), '\0');
    if (!data.empty()) std::memcpy(text.data(), data.data(), data.size());
    return text;
}

Result<ByteSpan> slice(ByteSpan data, std::uint64_t offset, std::uint64_t size) {
    if (offset > data.size() || size > data.size() - offset)
        return fail_at(ErrorCode::damaged, offset,
                       phrase("needs {} bytes, has {}", grouped(size), grouped(offset > data.size() ? 0 : data.size() - offset)));
    return data.subspan(static_cast<std::size_t>(offset), static_cast<std::size_t>(size));
}

}  // namespace skivet
