#include "catalog/index_store.h"

#include <fmt/format.h>
#include <tbb/parallel_for.h>
#include <xxhash.h>
#include <bit>
#include <iterator>
#include <map>
#include <unordered_map>

#include "base/file_view.h"
#include "base/own_folders.h"
#include "base/phrase.h"
#include "catalog/analysis.h"
#include "catalog/item_records.h"
#include "catalog/sqlite.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr int schema_version = 4;
constexpr const char* schema =
    "CREATE TABLE source(id INTEGER PRIMARY KEY, path TEXT UNIQUE NOT NULL, fingerprint TEXT NOT NULL, items INTEGER NOT NULL, sum INTEGER "
    "NOT NULL);"
    "CREATE TABLE listing(source INTEGER NOT NULL, part INTEGER NOT NULL, data BLOB NOT NULL, sum INTEGER NOT NULL, PRIMARY KEY(source, "
    "part)) WITHOUT ROWID;"
    "CREATE TABLE content(source INTEGER NOT NULL, item INTEGER NOT NULL, key BLOB NOT NULL, sum INTEGER NOT NULL, PRIMARY KEY(source, "
    "item)) WITHOUT ROWID;"
    // In the order in which they come: keys are random, and rows in their order would be written all over the file.
    "CREATE TABLE picture(id INTEGER PRIMARY KEY, key BLOB NOT NULL, facts BLOB, sum INTEGER NOT NULL);"
    "CREATE UNIQUE INDEX picture_key ON picture(key);"
    // Apart from the facts, under the same number: opening a project reads all of those and hardly any of these.
    "CREATE TABLE pattern(id INTEGER PRIMARY KEY, data BLOB NOT NULL, sum INTEGER NOT NULL);";
constexpr std::size_t items_a_part = 4096;

/// The checksum of a row: of its bytes, and of the numbers it belongs to, so that it cannot stand in another's place.
std::int64_t row_sum(ByteSpan bytes, std::uint64_t a = 0, std::uint64_t b = 0) {
    return static_cast<std::int64_t>(XXH3_64bits_withSeed(bytes.data(), bytes.size(), a * 0x9E3779B97F4A7C15u + b + 1));
}
std::int64_t source_sum(const std::string& path, std::string_view fingerprint, std::int64_t id, std::int64_t items) {
    const auto text = fmt::format("{}\n{}", path, fingerprint);
    return row_sum(as_bytes(text), static_cast<std::uint64_t>(id), static_cast<std::uint64_t>(items));
}

std::array<std::byte, 16> bytes_of(const ContentKey& key) {
    std::array<std::byte, 16> out;
    store_uint(out.data(), key.high, 8, ByteOrder::little);
    store_uint(out.data() + 8, key.low, 8, ByteOrder::little);
    return out;
}
ContentKey key_of(ByteSpan bytes) {
    if (bytes.size() != 16) return {};
    return {load_uint(bytes.data(), 8, ByteOrder::little), load_uint(bytes.data() + 8, 8, ByteOrder::little)};
}

/// Facts with their version in front, so that another one is not taken for them.
Bytes bytes_of(const PictureNumbers& facts) {
    Bytes out(4 + sizeof facts);
    store_uint(out.data(), PictureNumbers::version, 4, ByteOrder::little);
    std::memcpy(out.data() + 4, &facts, sizeof facts);
    return out;
}
/// The checksum of a row of facts.
std::int64_t picture_sum(ByteSpan facts, const ContentKey& key, std::int64_t id) {
    return row_sum(facts, key.high, key.low ^ static_cast<std::uint64_t>(id));
}

std::string stamp_text(const FileStamp& s) { return fmt::format("{}.{}.{};", s.size, s.modified_ns, s.inode); }

}  // namespace

std::string fingerprint_of(const fs::path& source) {
    std::error_code code;
    if (fs::is_directory(source, code)) {
        // Every file's name, size and time, whatever order the folder gives them in.
        std::uint64_t sum = 0, count = 0;
        for (fs::recursive_directory_iterator walk(source, fs::directory_options::skip_permission_denied, code), end; !code && walk != end;
             walk.increment(code)) {
            std::error_code ignored;
            if (!walk->is_regular_file(ignored)) continue;
            const auto text = fmt::format("{}\n{}\n{}", walk->path().string(), walk->file_size(ignored),
                                          walk->last_write_time(ignored).time_since_epoch().count());
            sum += XXH3_64bits(text.data(), text.size());
            ++count;
        }
        return code ? std::string() : fmt::format("folder {} {:016x}", count, sum);
    }
    const auto parts = parts_of(source);
    std::string out;
    for (const auto& part : parts ? *parts : std::vector{source}) {
        const auto stamp = stamp_of(part);
        if (!stamp) return {};
        out += stamp_text(*stamp);
    }
    return out;
}

std::string fingerprint_of(const ReadContext& context) {
    std::string text = fmt::format("{:016x}", context.sheets_hash);
    // What is built in: with another set of formats or kinds everything is listed anew.
    for (const auto& f : all_formats()) text += fmt::format("\n{} {}", f.name, static_cast<unsigned>(f.format));
    for (const auto& kind : context.textures.all()) text += fmt::format("\n{} {}", kind->name(), kind->traits().picture);
    for (const auto& kind : context.containers) text += '\n' + kind->name();
    for (const auto& c : context.choices) text += '\n' + c.pattern + '\t' + c.kind;
    for (const auto& p : context.known_paths) text += '\n' + p;
    for (const auto& k : context.keys->all()) text += '\n' + k.name;
    for (const auto& p : context.packers->all()) text += '\n' + p.name + '\t' + command_text(p.unpack);
    return fmt::format("{:016x}", XXH3_64bits(text.data(), text.size()));
}

Result<std::shared_ptr<IndexStore>> IndexStore::open(const fs::path& file, bool own_place) {
    std::shared_ptr<IndexStore> out(new IndexStore);
    SKIVET_TRY(out->db_, open_database(file, schema, schema_version, own_place ? Replaceable::place : Replaceable::ours, &out->replaced_));
    return out;
}

IndexStore::~IndexStore() {
    one_pattern_.reset();
    one_picture_.reset();
    sqlite3_close(db_);
}

std::optional<std::vector<CatalogItem>> IndexStore::listing(const fs::path& source, std::string_view fingerprint, std::size_t most) const {
    std::vector<Bytes> parts;
    std::vector<std::pair<std::size_t, ContentKey>> contents;
    std::size_t count = 0;
    {
        const std::lock_guard lock(mutex_);
        Statement found(db_, "SELECT id, items, sum FROM source WHERE path = ? AND fingerprint = ?");
        if (fingerprint.empty() || !found.bind(1, source.string()).bind(2, fingerprint).row()) return std::nullopt;
        const auto id = found.number(0);
        if (source_sum(source.string(), fingerprint, id, found.number(1)) != found.number(2)) return std::nullopt;
        count = std::min(static_cast<std::size_t>(found.number(1)), most);
        Statement rows(db_, "SELECT data, sum, part FROM listing WHERE source = ? AND part < ? ORDER BY part");
        rows.bind(1, id).bind(2, static_cast<std::int64_t>((count + items_a_part - 1) / items_a_part));
        while (rows.row()) {
            const auto bytes = rows.bytes(0);
            if (rows.number(2) != static_cast<std::int64_t>(parts.size()) ||
                row_sum(bytes, static_cast<std::uint64_t>(id), parts.size()) != rows.number(1))
                return std::nullopt;
            parts.emplace_back(bytes.begin(), bytes.end());
        }
        Statement keys(db_, "SELECT item, key, sum FROM content WHERE source = ? AND item < ?");
        keys.bind(1, id).bind(2, static_cast<std::int64_t>(count));
        while (keys.row())
            if (const auto item = static_cast<std::size_t>(keys.number(0));
                row_sum(keys.bytes(1), static_cast<std::uint64_t>(id), item) == keys.number(2))
                contents.emplace_back(item, key_of(keys.bytes(1)));
    }
    std::vector<std::optional<std::vector<CatalogItem>>> unpacked(parts.size());
    tbb::parallel_for(std::size_t{0}, parts.size(),
                      [&](std::size_t part) { unpacked[part] = unpack_items(std::exchange(parts[part], {})); });
    std::vector<CatalogItem> out;
    for (auto& items : unpacked) {
        if (!items) return std::nullopt;
        std::move(items->begin(), items->begin() + static_cast<std::ptrdiff_t>(std::min(items->size(), count - out.size())),
                  std::back_inserter(out));
        items.reset();
    }
    if (out.size() != count) return std::nullopt;
    for (const auto& [item, key] : contents)
        if (item < out.size()) out[item].content = key;
    return out;
}

Result<std::vector<ContentKey>> IndexStore::put_listing(const fs::path& source, std::string_view fingerprint,
                                                        std::span<const CatalogItem> items) {
    std::vector<ContentKey> out;
    out.reserve(items.size());
    for (const auto& item : items) out.push_back(item.content);
    // What an item must agree in to have the same content.
    const auto identity = [](const CatalogItem& i) {
        return fmt::format("{}\n{}\n{}\n{}\n{}", path_key(i.inner), i.size, i.stored, i.method.text(), i.check);
    };
    const std::lock_guard lock(mutex_);
    Transaction all(db_);
    if (!all.begun()) return fail_sqlite(db_, "cannot write the index");
    changed_ = true;
    Statement old(db_, "SELECT id FROM source WHERE path = ?");
    if (old.bind(1, source.string()).row()) {
        const auto id = old.number(0);
        std::unordered_map<std::int64_t, ContentKey> keys;
        Statement contents(db_, "SELECT item, key, sum FROM content WHERE source = ?");
        contents.bind(1, id);
        while (contents.row())
            if (row_sum(contents.bytes(1), static_cast<std::uint64_t>(id), static_cast<std::uint64_t>(contents.number(0))) ==
                contents.number(2))
                keys[contents.number(0)] = key_of(contents.bytes(1));
        std::unordered_map<std::string, ContentKey> known;
        Statement parts(db_, "SELECT data, sum FROM listing WHERE source = ? ORDER BY part");
        parts.bind(1, id);
        std::int64_t number = 0;
        for (std::uint64_t next = 0; parts.row() && !keys.empty(); ++next) {
            if (row_sum(parts.bytes(0), static_cast<std::uint64_t>(id), next) != parts.number(1)) break;
            const auto before = unpack_items(parts.bytes(0));
            if (!before) break;
            for (const auto& item : *before) {
                // Without a stated checksum nothing but reading tells.
                if (const auto key = keys.find(number++); key != keys.end() && item.check != 0) known[identity(item)] = key->second;
            }
        }
        for (std::size_t i = 0; i < items.size() && !known.empty(); ++i)
            if (const auto found = out[i].empty() ? known.find(identity(items[i])) : known.end(); found != known.end())
                out[i] = found->second;
        old.reset();
        for (const char* sql :
             {"DELETE FROM listing WHERE source = ?", "DELETE FROM content WHERE source = ?", "DELETE FROM source WHERE id = ?"})
            if (!Statement(db_, sql).bind(1, id).done()) return fail_sqlite(db_, "cannot write the index");
    }
    Statement add(db_, "INSERT INTO source(path, fingerprint, items, sum) VALUES(?, ?, ?, 0)");
    const auto count = static_cast<std::int64_t>(items.size());
    if (!add.bind(1, source.string()).bind(2, fingerprint).bind(3, count).done()) return fail_sqlite(db_, "cannot write the index");
    const auto id = sqlite3_last_insert_rowid(db_);
    if (!Statement(db_, "UPDATE source SET sum = ? WHERE id = ?")
             .bind(1, source_sum(source.string(), fingerprint, id, count))
             .bind(2, id)
             .done())
        return fail_sqlite(db_, "cannot write the index");
    Statement part(db_, "INSERT INTO listing(source, part, data, sum) VALUES(?, ?, ?, ?)");
    Statement content(db_, "INSERT INTO content(source, item, key, sum) VALUES(?, ?, ?, ?)");
    for (std::size_t at = 0; at < items.size(); at += items_a_part) {
        const auto of_part = std::min(items.size() - at, items_a_part);
        for (auto i = at; i < at + of_part; ++i) {
            if (out[i].empty()) continue;
            const auto key = bytes_of(out[i]);
            if (!content.bind(1, id)
                     .bind(2, static_cast<std::int64_t>(i))
                     .bind(3, ByteSpan(key))
                     .bind(4, row_sum(key, static_cast<std::uint64_t>(id), i))
                     .done())
                return fail_sqlite(db_, "cannot write the index");
        }
        const auto bytes = pack_items(items.subspan(at, of_part));
        if (!part.bind(1, id)
                 .bind(2, static_cast<std::int64_t>(at / items_a_part))
                 .bind(3, ByteSpan(bytes))
                 .bind(4, row_sum(bytes, static_cast<std::uint64_t>(id), at / items_a_part))
                 .done())
            return fail_sqlite(db_, "cannot write the index");
    }
    if (!all.commit()) return fail_sqlite(db_, "cannot write the index");
    return out;
}

Status IndexStore::keep_only(std::span<const fs::path> sources) {
    const std::lock_guard lock(mutex_);
    std::vector<std::int64_t> gone;
    {
        Statement all(db_, "SELECT id, path FROM source");
        while (all.row())
            if (std::find(sources.begin(), sources.end(), fs::path(all.text(1))) == sources.end()) gone.push_back(all.number(0));
    }
    if (gone.empty()) return {};
    changed_ = true;
    Transaction one(db_);
    for (const auto id : gone)
        for (const char* sql :
             {"DELETE FROM listing WHERE source = ?", "DELETE FROM content WHERE source = ?", "DELETE FROM source WHERE id = ?"})
            if (!Statement(db_, sql).bind(1, id).done()) return fail_sqlite(db_, "cannot write the index");
    if (!one.commit()) return fail_sqlite(db_, "cannot write the index");
    return {};
}

Status IndexStore::prune() {
    const std::lock_guard lock(mutex_);
    if (!std::exchange(changed_, false)) return {};
    Statement counts(db_, "SELECT (SELECT count(*) FROM picture), (SELECT count(DISTINCT key) FROM content)");
    if (!counts.row() || counts.number(0) < 2 * counts.number(1) + 1000) return {};
    Transaction all(db_);
    if (!all.begun()) return fail_sqlite(db_, "cannot write the index");
    for (const char* sql :
         {"DELETE FROM picture WHERE key NOT IN (SELECT key FROM content)", "DELETE FROM pattern WHERE id NOT IN (SELECT id FROM picture)"})
        if (!Statement(db_, sql).done()) return fail_sqlite(db_, "cannot write the index");
    if (!all.commit()) return fail_sqlite(db_, "cannot write the index");
    return {};
}

Status IndexStore::put_seen(std::span<Seen> seen) {
    const std::lock_guard lock(mutex_);
    Transaction all(db_);
    if (!all.begun()) return fail_sqlite(db_, "cannot write the index");
    changed_ = true;
    Statement content(db_, "INSERT OR REPLACE INTO content(source, item, key, sum) VALUES(?, ?, ?, ?)");
    Statement before(db_, "SELECT id FROM picture WHERE key = ?");
    Statement fresh(db_, "INSERT OR IGNORE INTO picture(id, key, facts, sum) VALUES(?, ?, ?, ?)");
    Statement again(db_, "INSERT OR REPLACE INTO picture(id, key, facts, sum) VALUES(?, ?, ?, ?)");
    Statement pattern(db_, "INSERT OR REPLACE INTO pattern(id, data, sum) VALUES(?, ?, ?)");
    std::int64_t next = 1;
    if (Statement last(db_, "SELECT max(id) FROM picture"); last.row()) next = last.number(0) + 1;
    struct Place {
        std::int64_t id = 0, items = 0;
    };
    std::map<fs::path, Place> places;
    const auto place_of = [&](const fs::path& source) {
        const auto [place, is_new] = places.try_emplace(source);
        Statement known(db_, "SELECT id, items FROM source WHERE path = ?");
        if (is_new && known.bind(1, source.string()).row()) place->second = {known.number(0), known.number(1)};
        return place->second;
    };
    std::vector<FactsPtr> kept;
    kept.reserve(seen.size());
    const fs::path* source = nullptr;
    Place place;
    for (const auto& s : seen) {
        const auto key = bytes_of(s.content);
        const auto item = static_cast<std::int64_t>(s.item);
        if (!source || *source != s.source) place = place_of(s.source), source = &s.source;
        if (item < place.items && !content.bind(1, place.id)
                                       .bind(2, item)
                                       .bind(3, ByteSpan(key))
                                       .bind(4, row_sum(key, static_cast<std::uint64_t>(place.id), s.item))
                                       .done())
            return fail_sqlite(db_, "cannot write the index");
        const auto facts = s.facts ? bytes_of(*s.facts) : Bytes{};
        // Most are new.
        const auto put = [&](Statement& statement, std::int64_t id) {
            statement.bind(1, id).bind(2, ByteSpan(key)).bind(4, picture_sum(facts, s.content, id));
            if (s.facts) statement.bind(3, ByteSpan(facts));
            else statement.bind_null(3);
            return statement.done();
        };
        if (!put(fresh, next)) return fail_sqlite(db_, "cannot write the index");
        const bool there = sqlite3_changes(db_) == 0;
        auto id = next;
        if (there) {
            if (!before.bind(1, ByteSpan(key)).row()) return fail_sqlite(db_, "cannot write the index");
            id = before.number(0);
            before.reset();
            if (!put(again, id)) return fail_sqlite(db_, "cannot write the index");
        } else {
            ++next;
        }
        // One that is there lies there already; of one that was pruned meanwhile nothing is left.
        const bool kept_here = s.facts && s.facts->store() == this;
        if (s.facts && !(kept_here && there)) {
            const auto shown = kept_here ? PicturePattern() : s.facts->pattern();
            const auto bytes = std::as_bytes(std::span(&shown, 1));
            if (!pattern.bind(1, id).bind(2, bytes).bind(3, row_sum(bytes, static_cast<std::uint64_t>(id))).done())
                return fail_sqlite(db_, "cannot write the index");
        }
        kept.push_back(kept_facts(facts, id));
    }
    if (!all.commit()) return fail_sqlite(db_, "cannot write the index");
    for (std::size_t i = 0; i < seen.size(); ++i) seen[i].facts = std::move(kept[i]);
    return {};
}

FactsPtr IndexStore::kept_facts(ByteSpan bytes, std::int64_t id) const {
    if (bytes.size() != 4 + sizeof(PictureNumbers) || load_uint(bytes.data(), 4, ByteOrder::little) != PictureNumbers::version)
        return nullptr;
    PictureNumbers numbers;
    std::memcpy(&numbers, bytes.data() + 4, sizeof numbers);
    return std::make_shared<PictureFacts>(numbers, shared_from_this(), id);
}

std::vector<ContentKey> IndexStore::contents() const {
    std::vector<ContentKey> out;
    const std::lock_guard lock(mutex_);
    Statement all(db_, "SELECT key FROM picture");
    while (all.row()) out.push_back(key_of(all.bytes(0)));
    std::sort(out.begin(), out.end());
    return out;
}

PicturePattern IndexStore::pattern(std::int64_t number) const {
    PicturePattern out;
    const std::lock_guard lock(mutex_);
    if (!one_pattern_) one_pattern_ = std::make_unique<Statement>(db_, "SELECT data, sum FROM pattern WHERE id = ?");
    if (one_pattern_->bind(1, number).row())
        if (const auto bytes = one_pattern_->bytes(0);
            bytes.size() == sizeof out && row_sum(bytes, static_cast<std::uint64_t>(number)) == one_pattern_->number(1))
            std::memcpy(&out, bytes.data(), sizeof out);
    one_pattern_->reset();
    return out;
}

namespace {

/// Which of the contents that are asked for are alike: twins share one value.
class Asked {
public:
    explicit Asked(std::span<const ContentKey> contents) : contents_(contents), slots_(std::bit_ceil(2 * contents.size() + 2), none) {
        for (std::uint32_t i = 0; i < contents.size(); ++i)
            if (!contents[i].empty())
                if (auto& slot = slots_[place_of(contents[i])]; slot == none) slot = i, different_.push_back(i);
    }
    /// The first with this content; none: nobody asked.
    [[nodiscard]] std::uint32_t first(const ContentKey& key) const { return slots_[place_of(key)]; }
    /// Of each content the first.
    [[nodiscard]] std::span<const std::uint32_t> different() const { return different_; }
    static constexpr std::uint32_t none = ~0u;

private:
    std::size_t place_of(const ContentKey& key) const {
        auto at = key.low & (slots_.size() - 1);
        while (slots_[at] != none && contents_[slots_[at]] != key) at = (at + 1) & (slots_.size() - 1);
        return at;
    }
    std::span<const ContentKey> contents_;
    std::vector<std::uint32_t> slots_, different_;
};

}  // namespace

std::vector<FactsPtr> IndexStore::facts(std::span<const ContentKey> contents, std::vector<bool>* undecodable) const {
    std::vector<FactsPtr> out(contents.size());
    if (undecodable) undecodable->assign(contents.size(), false);
    const Asked asked(contents);
    const std::lock_guard lock(mutex_);
    const auto take = [&](const Statement& row, std::uint32_t place) {
        if (picture_sum(row.bytes(2), contents[place], row.number(0)) != row.number(3)) return;
        out[place] = kept_facts(row.bytes(2), row.number(0));
        if (row.is_null(2) && undecodable) (*undecodable)[place] = true;
    };
    // One after the other when it is few of many, and otherwise all in the order in which they lie. Counting goes over all of them, too.
    constexpr std::size_t few = 1000;
    std::uint64_t there = ~0ull;
    if (asked.different().size() > few)
        if (Statement count(db_, "SELECT count(*) FROM picture"); count.row()) there = static_cast<std::uint64_t>(count.number(0));
    if (there / 4 < asked.different().size()) {
        Statement all(db_, "SELECT id, key, facts, sum FROM picture");
        while (all.row())
            if (const auto place = asked.first(key_of(all.bytes(1))); place != Asked::none) take(all, place);
    } else {
        if (!one_picture_) one_picture_ = std::make_unique<Statement>(db_, "SELECT id, key, facts, sum FROM picture WHERE key = ?");
        for (const auto place : asked.different()) {
            const auto bytes = bytes_of(contents[place]);
            if (one_picture_->bind(1, ByteSpan(bytes)).row()) take(*one_picture_, place);
            one_picture_->reset();
        }
    }
    for (std::size_t i = 0; i < contents.size(); ++i) {
        if (contents[i].empty()) continue;
        const auto first = asked.first(contents[i]);
        if (first == i) continue;
        out[i] = out[first];
        if (undecodable) (*undecodable)[i] = (*undecodable)[first];
    }
    return out;
}

}  // namespace skivet
