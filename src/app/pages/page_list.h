#pragma once
// The pages of the window, in their order. The route, the keys, the finder and the tests go by this list: a page is its file and a row
// here.
#include <span>

#include "app/pages/page.h"

namespace skivet::app {

struct Models;

/// What the route shows beside a page.
struct PageCount {
    std::size_t count = 0;  ///< 0: nothing is written
    bool warning = false;   ///< something there needs the person
};

struct PageRow {
    PageId id;
    const char* title;  ///< source text, for tr in the context "Page"
    const char* hint;   ///< said where one is for the first time; the same context
    Page* (*make)(Models&);
    PageCount (*count)(const Models&);

    [[nodiscard]] QString title_text() const;
    [[nodiscard]] QString hint_text() const;
};

/// In the order of PageId.
[[nodiscard]] std::span<const PageRow> page_list();

}  // namespace skivet::app
