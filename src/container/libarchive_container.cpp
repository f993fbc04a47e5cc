// libarchive goes through an archive from its beginning to its end. The container keeps one reader where it stopped: entries read in order
// cost one pass, and a step back starts over. The heads of all entries are gathered in one pass when the first of them is asked for,
// because that is how a catalog is made.
#include "container/libarchive_container.h"

#include <archive.h>
#include <archive_entry.h>

#include "base/phrase.h"
#include "base/text.h"

namespace skivet {
namespace {

constexpr std::size_t piece_bytes = 1u << 20;       // of a rebuilt archive
constexpr std::size_t head_bytes = 1024;            // of every entry, as much as a catalog asks for
constexpr std::uint64_t most_rebuilt = 1ull << 30;  // bytes, unpacked: packing them takes minutes

struct Free {
    void operator()(archive* a) const { archive_free(a); }
    void operator()(archive_entry* e) const { archive_entry_free(e); }
};
using Reader = std::unique_ptr<archive, Free>;

std::string message_of(archive* a) {
    const char* text = archive_error_string(a);
    return text ? text : "libarchive gives no reason";
}

class LibarchiveContainer final : public Container {
public:
    LibarchiveContainer(std::string format, FileView file) : format_(std::move(format)), file_(std::move(file)) {}

    std::string kind() const override { return format_; }
    std::string read_only() const override {
        if (format_ == "ISO 9660") return "an ISO 9660 image is only read";
        return {};
    }

    Status list(const ReadLimits& limits) {
        SKIVET_TRY(auto reader, open_reader());
        const std::string_view method = format_ == "7z" ? "7z" : "stored";
        for (std::size_t index = 0;; ++index) {
            archive_entry* e = nullptr;
            const int result = archive_read_next_header(reader.get(), &e);
            if (result == ARCHIVE_EOF) break;
            if (result == ARCHIVE_FATAL || result == ARCHIVE_RETRY) {
                const auto text = message_of(reader.get());
                if (text.find("ncrypt") != std::string::npos)
                    return fail(ErrorCode::unsupported, "an encrypted 7z archive", "Only 7z archives without encryption can be read");
                if (entries_.empty()) return fail(ErrorCode::damaged, text);
                problems_.push_back(
                    Error{ErrorCode::damaged, text, {phrase("entry {}", index + 1)}, std::nullopt, "What follows is not listed"});
                break;
            }
            if (archive_entry_filetype(e) != AE_IFREG) continue;
            if (entries_.size() >= limits.entries) return fail(ErrorCode::limit, phrase("more than {} entries", grouped(limits.entries)));
            Entry entry;
            const char* path = archive_entry_pathname_utf8(e);
            if (!path) path = archive_entry_pathname(e);
            entry.path = path ? path : phrase("entry {}", index + 1);
            if (entry.path.starts_with("./")) entry.path.erase(0, 2);
            const auto size = archive_entry_size(e);
            entry.size = size > 0 ? static_cast<std::uint64_t>(size) : 0;
            entry.stored = entry.size;
            entry.method = method;
            entry.encrypted = archive_entry_is_data_encrypted(e) == 1;
            entries_.push_back(std::move(entry));
            places_.push_back(index);
        }
        number_doubles();
        return {};
    }

    Result<Bytes> unpack_entry(std::size_t entry, const ReadLimits& limits) const override {
        if (entries_[entry].size > limits.inflated_bytes)
            return fail(
                in_entry(*this, entry,
                         Error{ErrorCode::limit, phrase("{} are more than the limit", human_bytes(entries_[entry].size)), {}, {}, {}}));
        const std::lock_guard lock(mutex_);
        auto out = read_locked(entry);
        if (!out) return fail(in_entry(*this, entry, std::move(out).error()));
        return out;
    }

    Result<Bytes> head_of_entry(std::size_t entry, std::size_t count) const override {
        if (count > head_bytes) {
            SKIVET_TRY(auto all, read(entry, ReadLimits{}));
            all.resize(std::min(count, all.size()));
            return all;
        }
        const std::lock_guard lock(mutex_);
        if (!heads_) {
            auto gathered = gather_heads();
            if (!gathered) return fail(in_entry(*this, entry, std::move(gathered).error()));
            heads_ = std::move(*gathered);
        }
        auto head = (*heads_)[entry];
        head.resize(std::min(count, head.size()));
        return head;
    }

    Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits& limits) const override {
        if (!read_only().empty()) return cannot_write(*this);
        std::vector<const Content*> fresh(entries_.size(), nullptr);
        bool changed = false;
        std::uint64_t total = 0;
        for (const auto& r : replacements) {
            if (r.entry >= entries_.size()) return fail(ErrorCode::usage, "there is no such entry");
            const auto now = read(r.entry, limits);
            if (now && r.bytes == *now) continue;
            fresh[r.entry] = &r.bytes;
            changed = true;
        }
        if (!changed) return WritePlan{};
        for (std::size_t i = 0; i < entries_.size(); ++i) total += fresh[i] ? fresh[i]->size() : entries_[i].size;
        if (total > most_rebuilt)
            return fail(ErrorCode::unsupported,
                        phrase("a {} archive of {} unpacked is too large to be built anew", format_, human_bytes(total)),
                        "Deliver into an override folder instead, if the game has one");
        FilePlan plan;
        SKIVET_TRY(plan.pieces, rebuild(fresh));
        // What follows the archive is not the library's and stays.
        SKIVET_TRY(const auto file, file_.bytes());
        if (const auto end = end_of(file); end < file.size()) {
            plan.pieces.push_back({end, file.size() - end, {}});
        }
        return finish_plan(file_, std::move(plan));
    }

private:
    std::string format_;
    FileView file_;
    std::vector<std::size_t> places_;  ///< of each entry among all headers
    mutable std::mutex mutex_;
    mutable Reader reader_;
    mutable std::size_t next_ = 0;  ///< the header `reader_` reads next
    mutable std::optional<std::vector<Bytes>> heads_;

    /// Where the archive ends by its own account, padding included; the file's end where it does not say.
    std::uint64_t end_of(ByteSpan file) const {
        if (format_ == "7z" &&
            file.size() >= 32) {  // signature header: version, CRC, then where the next header lies, counted from here, and its size
            std::uint64_t end = 0;
            const bool wraps =
                __builtin_add_overflow(load_le<std::uint64_t>(file.data() + 12), load_le<std::uint64_t>(file.data() + 20), &end) ||
                __builtin_add_overflow(end, std::uint64_t{32}, &end);
            return wraps ? file.size() : std::min<std::uint64_t>(end, file.size());
        }
        return file.size();
    }

    Result<Reader> open_reader() const {
        SKIVET_TRY(const auto data, file_.bytes());
        Reader reader(archive_read_new());
        if (!reader) return fail(ErrorCode::io, "out of memory");
        if (format_ == "7z") archive_read_support_format_7zip(reader.get());
        else archive_read_support_format_iso9660(reader.get());
        if (archive_read_open_memory(reader.get(), data.data(), data.size()) != ARCHIVE_OK)
            return fail(ErrorCode::damaged, message_of(reader.get()));
        return reader;
    }

    static Result<Bytes> data_of(archive* a, std::uint64_t most) {
        Bytes out;
        std::size_t done = 0;
        while (done < most) {
            out.resize(std::min<std::uint64_t>(most, std::max<std::uint64_t>(done * 2, 64 << 10)));
            const auto got = archive_read_data(a, out.data() + done, out.size() - done);
            if (got < 0) return fail(ErrorCode::damaged, message_of(a));
            if (got == 0) break;
            done += static_cast<std::size_t>(got);
        }
        out.resize(done);
        return out;
    }

    Result<Bytes> read_locked(std::size_t entry) const {
        if (!reader_ || next_ > places_[entry]) {
            SKIVET_TRY(reader_, open_reader());
            next_ = 0;
        }
        archive_entry* e = nullptr;
        while (next_ <= places_[entry]) {
            const int result = archive_read_next_header(reader_.get(), &e);
            if (result != ARCHIVE_OK && result != ARCHIVE_WARN) {
                const auto text = result == ARCHIVE_EOF ? std::string("the archive ends early") : message_of(reader_.get());
                reader_.reset();
                return fail(ErrorCode::damaged, text);
            }
            ++next_;
        }
        auto out = data_of(reader_.get(), entries_[entry].size + 1);
        if (!out) reader_.reset();
        else if (out->size() != entries_[entry].size)
            return fail(ErrorCode::damaged,
                        phrase("unpacks to {} bytes, should be {}", grouped(out->size()), grouped(entries_[entry].size)));
        return out;
    }

    Result<std::vector<Bytes>> gather_heads() const {
        SKIVET_TRY(auto reader, open_reader());
        std::vector<Bytes> out(entries_.size());
        std::size_t index = 0;
        for (std::size_t i = 0; i < entries_.size(); ++i) {
            archive_entry* e = nullptr;
            for (; index <= places_[i]; ++index) {
                const int result = archive_read_next_header(reader.get(), &e);
                if (result != ARCHIVE_OK && result != ARCHIVE_WARN) return out;  // heads that could not be read stay empty
            }
            if (auto head = data_of(reader.get(), std::min<std::uint64_t>(head_bytes, entries_[i].size))) out[i] = std::move(*head);
        }
        return out;
    }

    /// What the library writes, a megabyte each: it does not lie in memory whole.
    struct Written {
        Bytes waiting;
        std::vector<PlanPiece> pieces;
        void put(ByteSpan bytes) {
            waiting.insert(waiting.end(), bytes.begin(), bytes.end());
            if (waiting.size() >= piece_bytes) flush();
        }
        void flush() {
            pieces.push_back({0, 0, Content(ByteSpan(waiting))});
            waiting.clear();
        }
    };

    static Status write_data(archive* writer, ByteSpan bytes) {
        while (!bytes.empty()) {
            const auto wrote = archive_write_data(writer, bytes.data(), bytes.size());
            if (wrote <= 0) return fail(ErrorCode::io, message_of(writer));
            bytes = bytes.subspan(static_cast<std::size_t>(wrote));
        }
        return {};
    }

    /// Every header as it was; only data and size of the replaced ones differ.
    Result<std::vector<PlanPiece>> rebuild(const std::vector<const Content*>& fresh) const {
        SKIVET_TRY(auto reader, open_reader());
        Written out;  // outlives the writer, which still flushes into it when it is freed after an error
        const std::unique_ptr<archive, Free> writer(archive_write_new());
        if (!writer) return fail(ErrorCode::io, "out of memory");
        archive_write_set_format_7zip(writer.get());
        archive_write_set_bytes_per_block(writer.get(), 10240);
        const auto append = [](archive*, void* user, const void* data, std::size_t size) -> la_ssize_t {
            static_cast<Written*>(user)->put({static_cast<const std::byte*>(data), size});
            return static_cast<la_ssize_t>(size);
        };
        archive_write_set_bytes_in_last_block(writer.get(), 1);
        if (archive_write_open(writer.get(), &out, nullptr, append, nullptr) != ARCHIVE_OK)
            return fail(ErrorCode::io, message_of(writer.get()));
        Bytes buffer(piece_bytes);
        std::size_t entry = 0;
        std::uint64_t total = 0;
        for (std::size_t index = 0;; ++index) {
            archive_entry* e = nullptr;
            const int result = archive_read_next_header(reader.get(), &e);
            if (result == ARCHIVE_EOF) break;
            if (result != ARCHIVE_OK && result != ARCHIVE_WARN)
                return fail(ErrorCode::damaged, message_of(reader.get()), "A damaged archive is only read");
            const bool ours = entry < places_.size() && places_[entry] == index;
            const auto* content = ours ? fresh[entry] : nullptr;
            if (ours) ++entry;
            if (content) archive_entry_set_size(e, static_cast<la_int64_t>(content->size()));
            if (archive_write_header(writer.get(), e) < ARCHIVE_WARN) return fail(ErrorCode::io, message_of(writer.get()));
            if (content) {
                SKIVET_CHECK(write_data(writer.get(), ByteSpan(*content)));
                content->rest();
                continue;
            }
            if (archive_entry_filetype(e) != AE_IFREG) continue;
            for (;;) {
                const auto got = archive_read_data(reader.get(), buffer.data(), buffer.size());
                if (got < 0) return fail(ErrorCode::damaged, message_of(reader.get()), "A damaged archive is only read");
                if (got == 0) break;
                total += static_cast<std::uint64_t>(got);
                if (total > most_rebuilt)
                    return fail(ErrorCode::damaged, "its entries are larger than it says", "A damaged archive is only read");
                SKIVET_CHECK(write_data(writer.get(), ByteSpan(buffer).first(static_cast<std::size_t>(got))));
            }
        }
        if (archive_write_close(writer.get()) != ARCHIVE_OK) return fail(ErrorCode::io, message_of(writer.get()));
        out.flush();
        return std::move(out.pieces);
    }
};

class LibarchiveKind final : public ContainerKind {
public:
    explicit LibarchiveKind(std::string_view format) : format_(format) {}
    std::string name() const override { return format_; }
    std::optional<Recognized> recognize(ByteSpan head, std::uint64_t file_size, std::string_view path) const override {
        const auto has = [&](std::size_t at, std::string_view mark) {
            return head.size() >= at + mark.size() && as_text(head.subspan(at, mark.size())) == mark;
        };
        if (format_ == "7z" && has(0, std::string_view("7z\xBC\xAF\x27\x1C", 6))) return Recognized{ranks::magic, "the 7z signature"};
        if (format_ == "ISO 9660") {  // ECMA-119: the volume descriptors begin in sector 16
            if (has(32769, "CD001")) return Recognized{ranks::magic, "\"CD001\" in sector 16"};
            if (head.size() < file_size && file_size > 32774 && lower(path).ends_with(".iso"))
                return Recognized{ranks::by_name, "its name"};
        }
        return std::nullopt;
    }
    Result<std::shared_ptr<const Container>> open(const ReadContext& context, FileView file) const override {
        auto out = std::make_shared<LibarchiveContainer>(format_, std::move(file));
        SKIVET_CHECK(out->list(context.limits));
        return std::shared_ptr<const Container>(std::move(out));
    }

private:
    std::string format_;
};

}  // namespace

std::shared_ptr<const ContainerKind> libarchive_kind(std::string_view format) { return std::make_shared<LibarchiveKind>(format); }

}  // namespace skivet
