#pragma once
// What the commands that write have in common.
#include "base/hash.h"
#include "bench/fitting.h"
#include "cli/commands.h"
#include "container/address.h"
#include "delivery/vault.h"

namespace skivet::cli {

/// While it lives a signal waits for the old bytes.
class Writing {
public:
    explicit Writing(const Context& c) : interruption_(c.interruption), may_(!interruption_ || interruption_->begin_writing()) {}
    Writing(const Writing&) = delete;
    Writing& operator=(const Writing&) = delete;
    ~Writing() {
        if (interruption_ && may_) interruption_->end_writing();
    }
    [[nodiscard]] bool may() const { return may_; }

private:
    Interruption* interruption_;
    bool may_;
};

/// The plan as text or JSON.
void print_plan(Context& context, const WritePlan& plan, bool dry_run);
/// What goes into the entry: a file of the same kind as it is, a picture through fitting. Whatever shows damage, the original or the edit,
/// is refused: only --as-is puts bytes in that nobody understands. `current` is the texture joined of its files, or why it cannot be read.
[[nodiscard]] Result<Bytes> content_for(Context& context, const Result<Bytes>& current, const std::string& name, Bytes with,
                                        const std::string& given_name, bool as_is, const FitWish& wish = {});
/// Prints the plan and delivers it; returns the exit code.
int deliver(Context& context, const WritePlan& plan, const DeliveryNote& note, const std::function<Status()>& check);
/// A texture of an open source, joined of its files.
[[nodiscard]] Result<Bytes> read_joined(const Context& context, const Container& source, const std::vector<std::string>& inner);
/// Where pieces of one source go.
struct PutWish {
    std::filesystem::path beside, patch;  ///< an override folder, or a new archive; both empty: into the source
    bool dry_run = false;
};
/// Puts entries of one source in by one delivery and reads them back; prints the plan; returns the exit code.
int put_pieces(Context& context, const Container& source, const std::filesystem::path& path, std::vector<AddressedBytes> items,
               const PutWish& wish);
/// The plan for the two ways that leave the archive alone.
[[nodiscard]] Result<WritePlan> plan_elsewhere(const Context& context, const std::filesystem::path& source,
                                               const std::filesystem::path& beside, const std::filesystem::path& patch,
                                               std::span<const AddressedBytes> pieces);
/// A vault that heeds this call's signals and its register.
[[nodiscard]] Vault vault_of(const Context& context, Files& files, const std::filesystem::path& folder);
/// Seconds since 1970, UTC.
[[nodiscard]] std::int64_t now();

}  // namespace skivet::cli
