#include "catalog/item_records.h"

#include <unordered_map>

namespace skivet {
namespace {

class Writer {
public:
    void number(std::uint64_t v, unsigned width) {
        const auto at = bytes_.size();
        bytes_.resize(at + width);
        store_uint(bytes_.data() + at, v, width, ByteOrder::little);
    }
    void text(std::string_view t) {
        number(t.size(), 4);
        const auto span = std::as_bytes(std::span(t));
        bytes_.insert(bytes_.end(), span.begin(), span.end());
    }
    void item(const CatalogItem& i) {
        number(i.inner.size(), 1);
        for (const auto& step : i.inner) text(step);
        number(static_cast<std::uint64_t>(i.kind), 1);
        text(i.file_kind.text());
        const auto& d = i.desc;
        text(info(d.format).name);  // numbers of formats move when one comes in between
        for (const auto v : {d.width, d.height, d.depth, d.mips, d.layers, d.faces}) number(v, 4);
        number(static_cast<std::uint64_t>(d.color), 1);
        number(i.size, 8);
        number(i.stored, 8);
        text(i.method.text());
        number(i.check, 4);
        number(i.error.has_value(), 1);
        if (!i.error) return;
        number(static_cast<std::uint64_t>(i.error->code), 1);
        text(i.error->what);
        number(i.error->where.size(), 1);
        for (const auto& w : i.error->where) text(w);
        number(i.error->at.has_value(), 1);
        number(i.error->at.value_or(0), 8);
        text(i.error->advice);
    }
    [[nodiscard]] Bytes take() { return std::move(bytes_); }

private:
    Bytes bytes_;
};

class Reader {
public:
    explicit Reader(ByteSpan data) : reader_(data) {}
    [[nodiscard]] bool sound() const { return sound_; }
    [[nodiscard]] bool more() const { return sound_ && reader_.remaining() > 0; }
    std::uint64_t number(unsigned width) {
        const auto v = reader_.uint(width);
        sound_ = sound_ && v;
        return v ? *v : 0;
    }
    std::string_view view() {
        const auto bytes = reader_.take(number(4));
        sound_ = sound_ && bytes;
        return bytes ? std::string_view(reinterpret_cast<const char*>(bytes->data()), bytes->size()) : std::string_view();
    }
    std::string text() { return std::string(view()); }
    /// Mostly it is the one before, and looking for it among all would be waiting for others who do.
    SharedText shared(SharedText& before) {
        const auto text = view();
        if (before.text() != text) before = text;
        return before;
    }
    CatalogItem item() {
        CatalogItem i;
        for (auto steps = number(1); steps > 0 && sound_; --steps) i.inner.push_back(text());
        sound_ = sound_ && !i.inner.empty();
        i.kind = static_cast<EntryKind>(number(1));
        i.file_kind = shared(kind_);
        auto& d = i.desc;
        const auto format = view();
        const auto known = formats_.find(format);
        sound_ = sound_ && known != formats_.end();
        if (!sound_) return i;
        d.format = known->second;
        for (auto* v : {&d.width, &d.height, &d.depth, &d.mips, &d.layers, &d.faces}) *v = static_cast<std::uint32_t>(number(4));
        d.color = static_cast<ColorSpace>(number(1));
        i.size = number(8);
        i.stored = number(8);
        i.method = shared(method_);
        i.check = static_cast<std::uint32_t>(number(4));
        if (number(1) == 0) return i;
        Error e;
        e.code = static_cast<ErrorCode>(number(1));
        e.what = text();
        for (auto steps = number(1); steps > 0 && sound_; --steps) e.where.push_back(text());
        const bool has_at = number(1) != 0;
        const auto at = number(8);
        if (has_at) e.at = at;
        e.advice = text();
        i.error = std::move(e);
        return i;
    }

private:
    ByteReader reader_;
    bool sound_ = true;
    SharedText kind_, method_;
    /// By their own names alone: other spellings are for people.
    const std::unordered_map<std::string_view, Format> formats_ = [] {
        std::unordered_map<std::string_view, Format> out = {{info(Format::unknown).name, Format::unknown}};
        for (const auto& f : all_formats()) out.emplace(f.name, f.format);
        return out;
    }();
};

}  // namespace

Bytes pack_items(std::span<const CatalogItem> items) {
    Writer writer;
    for (const auto& item : items) writer.item(item);
    return writer.take();
}

std::optional<std::vector<CatalogItem>> unpack_items(ByteSpan data) {
    std::vector<CatalogItem> out;
    for (Reader reader(data); reader.more();) {
        out.push_back(reader.item());
        if (!reader.sound()) return std::nullopt;
    }
    return out;
}

}  // namespace skivet
