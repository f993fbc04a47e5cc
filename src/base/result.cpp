#include "base/result.h"

#include "base/phrase.h"

#include <cerrno>
#include <cstring>

namespace skivet {

std::string Error::message() const {
    std::string text;
    for (const auto& step : where) {
        if (!text.empty()) text += " ▸ ";
        text += said(step);
    }
    if (!text.empty()) text += ": ";
    text += said(what);  // where values are in it, `phrase` has translated it
    if (at) text += phrase(" (at byte {})", hex(*at));
    if (!advice.empty()) text += ". " + said(advice);
    return text;
}

Error Error::within(std::string outer) && {
    where.insert(where.begin(), std::move(outer));
    return std::move(*this);
}

Error Error::within(std::string outer) const& { return Error(*this).within(std::move(outer)); }

tl::unexpected<Error> fail(ErrorCode code, std::string what, std::string advice) {
    return tl::unexpected<Error>(Error{code, std::move(what), {}, std::nullopt, std::move(advice)});
}

tl::unexpected<Error> fail_at(ErrorCode code, std::uint64_t at, std::string what, std::string advice) {
    return tl::unexpected<Error>(Error{code, std::move(what), {}, at, std::move(advice)});
}

tl::unexpected<Error> fail_errno(int error_number, std::string doing) {
    ErrorCode code = ErrorCode::io;
    std::string advice;
    switch (error_number) {
        case ENOSPC:
        case EDQUOT:
            code = ErrorCode::no_space;
            advice = "Free some space and try again; nothing was changed";
            break;
        case EACCES:
        case EPERM:
        case EROFS:
            code = ErrorCode::permission;
            advice = "Check who owns the file and whether the disk is read-only";
            break;
        case ENOENT:
        case ENOTDIR: code = ErrorCode::missing; break;
        default: break;
    }
    return fail(code, said(doing) + ": " + std::strerror(error_number), std::move(advice));
}

int exit_code(ErrorCode code) {
    switch (code) {
        case ErrorCode::usage: return 2;
        case ErrorCode::no_space:
        case ErrorCode::permission:
        case ErrorCode::io:
        case ErrorCode::busy: return 4;
        case ErrorCode::canceled: return 130;
        default: return 3;
    }
}

std::string grouped(std::uint64_t number) {
    std::string digits = std::to_string(number);
    const auto* spoken = language();
    const std::string mark = spoken ? spoken->group : ",";
    for (auto i = static_cast<std::ptrdiff_t>(digits.size()) - 3; i > 0; i -= 3) digits.insert(static_cast<std::size_t>(i), mark);
    return digits;
}

std::string human_bytes(std::uint64_t bytes) {
    if (bytes < 1024) return fmt::format("{} B", bytes);
    constexpr const char* units[] = {"KB", "MB", "GB", "TB"};
    double value = static_cast<double>(bytes) / 1024;
    std::size_t unit = 0;
    while (value >= 1000 && unit < 3) value /= 1024, ++unit;
    if (value >= 10) return fmt::format("{:.0f} {}", value, units[unit]);
    auto text = fmt::format("{:.1f} {}", value, units[unit]);
    if (const auto* spoken = language()) text[text.find('.')] = spoken->point;
    return text;
}

std::string hex(std::uint64_t number) { return fmt::format("0x{:x}", number); }

}  // namespace skivet
