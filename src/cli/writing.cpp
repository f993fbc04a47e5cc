#include "cli/writing.h"
#include "cli/json_line.h"

#include <fmt/format.h>
#include <ctime>
#include <nlohmann/json.hpp>
#include <ostream>

#include "container/texture_files.h"
#include "delivery/beside.h"

namespace skivet::cli {

namespace fs = std::filesystem;
using nlohmann::json;

std::int64_t now() { return static_cast<std::int64_t>(std::time(nullptr)); }

void print_plan(Context& c, const WritePlan& plan, bool dry_run) {
    const auto way = plan.way();
    if (c.json) {
        json ranges = json::array();
        for (const auto& file : plan.files)
            for (const auto& range : written_ranges(file))
                ranges.push_back({{"file", file.file.string()}, {"at", range.first}, {"size", range.second}});
        c.out << dump(json{
                     {"dry_run", dry_run}, {"way", std::string(name_of(way))}, {"bytes_written", plan.bytes_written()}, {"ranges", ranges}})
              << '\n';
        return;
    }
    if (plan.empty()) {
        c.out << "nothing to write: the content is the same\n";
        return;
    }
    for (const auto& file : plan.files) {
        const auto ranges = written_ranges(file);
        if (file.way == Way::remove) {
            c.out << fmt::format("{}: {}, {} bytes are kept\n", file.file.string(), name_of(file.way), grouped(file.expected.size));
            continue;
        }
        c.out << fmt::format("{}: {}, {} bytes in {}", file.file.string(), name_of(file.way), grouped(file.bytes_written()),
                             count_of(ranges.size(), "range"));
        if (file.new_size != file.expected.size)
            c.out << fmt::format(", size {} -> {}", grouped(file.expected.size), grouped(file.new_size));
        c.out << '\n';
        if (dry_run)
            for (const auto& [at, size] : ranges) c.out << fmt::format("  {:>12}  {} bytes\n", hex(at), grouped(size));
    }
}

std::string count_of(std::uint64_t count, std::string_view one, std::string_view many) {
    if (count == 1) return fmt::format("1 {}", one);
    return many.empty() ? fmt::format("{} {}s", grouped(count), one) : fmt::format("{} {}", grouped(count), many);
}

Result<Bytes> content_for(Context& c, const Result<Bytes>& current, const std::string& name, Bytes with, const std::string& given_name,
                          bool as_is, const FitWish& wish) {
    if (as_is || (current && *current == with)) return with;
    const auto use_as_is = [&](Error error) {
        error.advice += std::string(error.advice.empty() ? "" : ". ") + "Use --as-is to put the file in untouched";
        return fail(std::move(error).within(name));
    };
    if (!current) return use_as_is(current.error());
    const auto kind = c.context.textures.recognize(*current, name);
    const auto their_kind = c.context.textures.recognize(with, given_name);
    if (!kind) {
        if (!their_kind) return with;  // a text into a text
        return use_as_is(
            {ErrorCode::unfit, fmt::format("the entry is no texture Skivet knows, the file is one ({})", their_kind->name()), {}, {}, {}});
    }
    auto original = TextureFile::open(c.context.textures, *current, name, c.context.limits);
    if (!original) return use_as_is(std::move(original).error());
    if (original->layout.damage) return use_as_is(*original->layout.damage);
    if (their_kind == kind && original->layout.direct) {  // a picture file keeps its own type, depth and tables
        SKIVET_TRY(const auto theirs, TextureFile::open(c.context.textures, with, given_name, c.context.limits));
        if (theirs.layout.damage) return use_as_is(*theirs.layout.damage);
        auto a = theirs.layout.desc, b = original->layout.desc;
        a.color = b.color = ColorSpace::unknown;
        if (a == b) return with;
    }
    SKIVET_TRY(auto edited, read_edited(std::move(with), c.context.limits, given_name));
    SKIVET_TRY(auto fitted, fit(*original, std::move(edited), {wish.mends, {}, wish.format}));
    const bool can_stay =
        std::any_of(fitted.findings.begin(), fitted.findings.end(), [](const Finding& f) { return f.mend == Mend::keep_size; });
    for (const auto& finding : fitted.findings) {
        if (finding.grade == Grade::blocks)
            return fail(ErrorCode::unfit, finding.headline,
                        finding.detail + (can_stay ? " Use --resize-texture to give the texture that size," : "") +
                            (finding.mend ? fmt::format(" Use --mend {} to have that done, or", info(*finding.mend).id) : " Use") +
                            " --as-is to put the file in untouched");
        if (finding.grade != Grade::fits) c.err << "skivet-cli: " << finding.headline << ": " << finding.detail << '\n';
    }
    return std::move(fitted.file);
}

Vault vault_of(const Context& c, Files& files, const fs::path& folder) {
    Vault vault(folder, files, c.vaults);
    vault.heed(c.cancel);
    return vault;
}

int deliver(Context& c, const WritePlan& plan, const DeliveryNote& note, const std::function<Status()>& check) {
    print_plan(c, plan, false);
    if (plan.empty()) return 0;
    for (const auto& line : broken_links(plan)) c.err << "skivet-cli: " << line << '\n';
    const Writing writing(c);
    if (!writing.may()) return c.failed(c.cancel.check().error());
    PosixFiles files;
    auto vault = vault_of(c, files, c.vault);
    if (const auto done = vault.deliver(plan, note, now(), check); !done) return c.failed(done.error());
    return 0;
}

Result<Bytes> read_joined(const Context& c, const Container& source, const std::vector<std::string>& inner) {
    SKIVET_TRY(auto own, read_entry(c.context, source, inner));
    return join_spread(c.context.textures, std::move(own), inner.back(), siblings_of(c.context, source, inner), c.context.limits);
}

int put_pieces(Context& c, const Container& source, const fs::path& path, std::vector<AddressedBytes> items, const PutWish& wish) {
    const auto wanted = items;
    std::vector<std::string> entries;
    for (const auto& item : items) entries.push_back(item.inner.back());
    const bool elsewhere = !wish.beside.empty() || !wish.patch.empty();
    const auto plan = items.empty() ? Result<WritePlan>(WritePlan{})
                      : elsewhere   ? plan_elsewhere(c, path, wish.beside, wish.patch, items)
                                    : plan_replacements(c.context, source, std::move(items));
    if (!plan) return c.failed(plan.error());
    if (wish.dry_run) {
        print_plan(c, *plan, true);
        return 0;
    }
    const auto target = !wish.beside.empty() ? wish.beside : !wish.patch.empty() ? wish.patch : path;
    const DeliveryNote note{fmt::format("{} into {}", count_of(entries.size(), "piece"), target.filename().string()), target, entries};
    return deliver(c, *plan, note, [&]() -> Status {
        if (elsewhere) return {};
        SKIVET_TRY(const auto again, open_source(c.context, path));
        for (const auto& item : wanted) {
            SKIVET_CHECK(c.cancel.check());
            SKIVET_TRY(const auto back, read_joined(c, *again, item.inner));
            if (item.bytes != back) return fail(ErrorCode::io, item.inner.back() + " does not read back as it was written");
            item.bytes.rest();
        }
        return {};
    });
}

Result<WritePlan> plan_elsewhere(const Context& c, const fs::path& source, const fs::path& beside, const fs::path& patch,
                                 std::span<const AddressedBytes> pieces) {
    SKIVET_TRY(const auto opened, open_source(c.context, source));
    SKIVET_TRY(const auto files, spread_replacements(c.context, *opened, {pieces.begin(), pieces.end()}));
    if (!beside.empty()) return plan_override(beside, files);
    return plan_patch_archive(c.context, *opened, patch, files);
}

}  // namespace skivet::cli
