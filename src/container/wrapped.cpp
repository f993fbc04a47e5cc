#include "container/wrapped.h"

#include "base/pack.h"
#include "base/phrase.h"
#include "base/text.h"

namespace skivet {
namespace {

class WrappedContainer final : public Container {
public:
    WrappedContainer(FileView file, std::shared_ptr<const Wrapper> wrapper, FileView inside, std::shared_ptr<const Container> archive)
        : file_(std::move(file)), wrapper_(std::move(wrapper)), inside_(std::move(inside)), archive_(std::move(archive)) {
        if (archive_) {
            entries_ = archive_->entries();
            problems_ = archive_->problems();
        } else {
            Entry e;
            e.path = inside_.path().string();
            e.size = inside_.size();
            e.stored = file_.size();
            e.method = "stored";
            for (int p = 0; p <= static_cast<int>(Packing::bzip2); ++p)  // a name that lives as long as the program
                if (name_of(static_cast<Packing>(p)) == wrapper_->name()) e.method = name_of(static_cast<Packing>(p));
            entries_.push_back(std::move(e));
        }
        recognized_by_ = wrapper_->reason();
        if (archive_) recognized_by_ = phrase("{}, and inside it {}", said(recognized_by_), said(archive_->recognized_by()));
    }
    std::string kind() const override { return archive_ ? phrase("{} in {}", archive_->kind(), wrapper_->name()) : wrapper_->name(); }
    std::string read_only() const override { return archive_ ? archive_->read_only() : std::string(); }

    Result<Bytes> unpack_entry(std::size_t entry, const ReadLimits& limits) const override {
        if (archive_) return archive_->read(entry, limits);
        SKIVET_TRY(const auto data, inside_.bytes());
        return Bytes(data.begin(), data.end());
    }
    Result<Bytes> head_of_entry(std::size_t entry, std::size_t count) const override {
        if (archive_) return archive_->read_head(entry, count);
        SKIVET_TRY(const auto data, inside_.bytes());
        const auto head = data.first(std::min(count, data.size()));
        return Bytes(head.begin(), head.end());
    }
    Result<FileView> view_of_entry(std::size_t entry, const ReadLimits& limits) const override {
        return archive_ ? archive_->view(entry, limits) : Result<FileView>(inside_);
    }

    std::string fixed_entries() const override {
        return archive_ ? archive_->fixed_entries() : phrase("a {} holds one file; nothing can be put beside it", said(kind()));
    }
    Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits& limits) const override {
        return plan_entries({{replacements.begin(), replacements.end()}, {}, {}, {}}, limits);
    }

protected:
    Result<WritePlan> plan_entries(const Changes& changes, const ReadLimits& limits) const override {
        Bytes content;
        SKIVET_TRY(const auto before, inside_.bytes());
        if (archive_) {
            SKIVET_TRY(const auto inner, archive_->plan_changes(changes, limits));
            if (inner.empty()) return WritePlan{};
            SKIVET_TRY(content, planned_bytes(inner.files.front(), before));
        } else {
            for (const auto& r : changes.replaced) {
                if (r.entry != 0) return fail(ErrorCode::usage, "there is no such entry");
                content = r.bytes.copy();
            }
            if (changes.replaced.empty() || std::equal(content.begin(), content.end(), before.begin(), before.end())) return WritePlan{};
        }
        SKIVET_TRY(const auto file, file_.bytes());
        FilePlan plan;
        SKIVET_TRY(auto wrapped, wrapper_->wrap(file, std::move(content)));
        plan.pieces.push_back({0, 0, std::move(wrapped)});
        return finish_plan(file_, std::move(plan));
    }

private:
    FileView file_;
    std::shared_ptr<const Wrapper> wrapper_;
    FileView inside_;
    std::shared_ptr<const Container> archive_;
};

class StreamWrapper final : public Wrapper {
public:
    StreamWrapper(Packing packing, ReadLimits limits) : packing_(packing), limits_(limits) {}
    std::string name() const override { return std::string(name_of(packing_)); }
    std::string reason() const override { return phrase("the mark of {} at its beginning", name_of(packing_)); }
    Result<Bytes> unwrap(ByteSpan file) const override {
        SKIVET_TRY(auto all, streams(file));
        return std::move(all.bytes);
    }
    Result<Bytes> wrap(ByteSpan file, Bytes content) const override {
        SKIVET_TRY(auto out, pack(packing_, content, 0, file));
        SKIVET_TRY(const auto old, streams(file));
        // What follows the stream is nobody's business here.
        out.insert(out.end(), file.begin() + static_cast<std::ptrdiff_t>(old.packed_size), file.end());
        return out;
    }

private:
    Packing packing_;
    ReadLimits limits_;

    /// All streams of this kind that follow one another from the beginning on are one content, as their own programs take them.
    Result<UnpackedStream> streams(ByteSpan file) const {
        const auto most = std::min<std::uint64_t>(limits_.inflated_bytes, (64u << 20) + 250 * std::uint64_t{file.size()});
        SKIVET_TRY(auto out, unpack_stream(packing_, file, most));
        const bool joined = packing_ != Packing::zlib && packing_ != Packing::lzma_alone;
        while (joined && out.packed_size < file.size()) {
            const auto rest = file.subspan(static_cast<std::size_t>(out.packed_size));
            if (packing_at(rest) != packing_) break;
            SKIVET_TRY(const auto next, unpack_stream(packing_, rest, most - out.bytes.size()));
            if (next.packed_size == 0) break;
            out.bytes.insert(out.bytes.end(), next.bytes.begin(), next.bytes.end());
            out.packed_size += next.packed_size;
        }
        return out;
    }
};

class WrappedKind final : public ContainerKind {
public:
    std::string name() const override { return "packed file"; }
    std::optional<Recognized> recognize(ByteSpan head, std::uint64_t, std::string_view path) const override {
        const auto packing = packing_at(head);
        if (!packing) return std::nullopt;
        // Two bytes are no mark to rely on; the name has to agree.
        if (*packing == Packing::zlib || *packing == Packing::lzma_alone) {
            const auto name = lower(path);
            const char* endings[] = {".z", ".zlib", ".zz", ".lzma"};
            if (std::none_of(std::begin(endings), std::end(endings), [&](auto ending) { return name.ends_with(ending); }))
                return std::nullopt;
            return Recognized{ranks::weak, phrase("a header that could be {}, and its name", name_of(*packing))};
        }
        return Recognized{ranks::magic, phrase("the mark of {} at its beginning", name_of(*packing))};
    }
    Result<std::shared_ptr<const Container>> open(const ReadContext& context, FileView file) const override {
        SKIVET_TRY(const auto data, file.bytes());
        const auto packing = packing_at(data);
        if (!packing) return fail(ErrorCode::unsupported, "no packed stream we know");
        return open_wrapped(context, std::move(file), std::make_shared<StreamWrapper>(*packing, context.limits));
    }
};

}  // namespace

std::string Wrapper::inner_name(const std::string& file_name) const {
    const auto low = lower(file_name);
    for (const std::string_view ending : {".gz", ".zst", ".lz4", ".xz", ".lzma", ".bz2", ".zlib", ".zz", ".z"})
        if (low.ends_with(ending) && low.size() > ending.size()) return file_name.substr(0, file_name.size() - ending.size());
    for (const std::string_view ending : {".tgz", ".txz", ".tbz", ".tzst"})
        if (low.ends_with(ending)) return file_name.substr(0, file_name.size() - ending.size()) + ".tar";
    return file_name;
}

Result<std::shared_ptr<const Container>> open_wrapped(const ReadContext& context, FileView file, std::shared_ptr<const Wrapper> wrapper) {
    SKIVET_TRY(const auto data, file.bytes());
    SKIVET_TRY(auto content, wrapper->unwrap(data));
    auto inner = context;
    if (inner.limits.depth == 0) return fail(ErrorCode::limit, "too many wrappers around one another");
    --inner.limits.depth;
    auto inside = FileView::of(std::move(content), wrapper->inner_name(file.path().filename().string()));
    std::shared_ptr<const Container> archive;
    SKIVET_TRY(const auto bytes, inside.bytes());
    // A picture that could also be something else stays a picture.
    if (!context.textures.recognize(bytes, inside.path().string(), bytes.size()) &&
        !candidates(inner, bytes, bytes.size(), inside.path().string()).empty())
        if (auto opened = open_container(inner, inside)) archive = std::move(*opened);
    return std::shared_ptr<const Container>(
        std::make_shared<WrappedContainer>(std::move(file), std::move(wrapper), std::move(inside), std::move(archive)));
}

std::shared_ptr<const ContainerKind> wrapped_kind() { return std::make_shared<WrappedKind>(); }

}  // namespace skivet
