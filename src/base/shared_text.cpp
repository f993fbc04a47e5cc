#include "base/shared_text.h"

#include <map>
#include <mutex>

namespace skivet {
namespace {

/// Files decide some of these texts: what does not fit in is held by whoever has it.
constexpr std::size_t most_texts = 1000;

}  // namespace

SharedText::SharedText(std::string_view text) {
    if (text.empty()) return;
    static std::mutex mutex;
    static std::map<std::string, std::shared_ptr<const std::string>, std::less<>> all;
    const std::lock_guard lock(mutex);
    if (const auto found = all.find(text); found != all.end()) {
        text_ = found->second;
        return;
    }
    text_ = std::make_shared<std::string>(text);
    if (all.size() < most_texts) all.emplace(text, text_);
}

}  // namespace skivet
