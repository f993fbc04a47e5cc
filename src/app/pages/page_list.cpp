#include "app/pages/page_list.h"

#include <QCoreApplication>

#include "app/models/models.h"
#include "app/pages/bench_page.h"
#include "app/pages/catalog_page.h"
#include "app/pages/delivery_page.h"
#include "app/pages/fitting_page.h"
#include "app/pages/sources_page.h"

namespace skivet::app {

namespace {

std::size_t pieces_with(const Models& models, std::initializer_list<PieceState> states) {
    const auto& pieces = models.bench.pieces();
    return std::size_t(std::count_if(pieces.begin(), pieces.end(),
                                     [&](const Piece& p) { return std::find(states.begin(), states.end(), p.state) != states.end(); }));
}

PageCount count_sources(const Models& models) {
    const auto& sources = models.sources.snapshot()->sources;
    return {sources.size(), std::any_of(sources.begin(), sources.end(), [](const Source& s) { return s.error.has_value(); })};
}

PageCount count_textures(const Models& models) { return {models.catalog.snapshot()->textures}; }

constexpr PageRow rows[] = {
    {PageId::sources, QT_TRANSLATE_NOOP("Page", "Sources"),
     QT_TRANSLATE_NOOP("Page", "First the archives: show where the game is installed. Of two that hold the same file the upper one wins."),
     [](Models& m) -> Page* { return new SourcesPage(&m.sources, &m.parcels, &m.shipped); }, count_sources},
    {PageId::catalog, QT_TRANSLATE_NOOP("Page", "Catalog"),
     QT_TRANSLATE_NOOP("Page",
                       "Find a texture by typing, by narrowing down or by a picture, and take it to the bench: as a file to paint in."),
     [](Models& m) -> Page* { return new CatalogPage(&m.catalog, &m.try_on, &m.frame); }, count_textures},
    {PageId::bench, QT_TRANSLATE_NOOP("Page", "Bench"),
     QT_TRANSLATE_NOOP("Page", "What you took out. Open a piece, paint, save it where it is: Skivet notices by itself."),
     [](Models& m) -> Page* { return new BenchPage(&m.bench); }, [](const Models& m) { return PageCount{m.bench.pieces().size()}; }},
    {PageId::fitting, QT_TRANSLATE_NOOP("Page", "Fitting"),
     QT_TRANSLATE_NOOP("Page", "What the game will really get, beside what you painted. What does not fit says so, and how to mend it."),
     [](Models& m) -> Page* { return new FittingPage(&m.bench, &m.kin, &m.try_on); },
     [](const Models& m) {
         const auto mends = pieces_with(m, {PieceState::needs_mend});
         return PageCount{mends + pieces_with(m, {PieceState::changed}), mends > 0};
     }},
    {PageId::delivery, QT_TRANSLATE_NOOP("Page", "Delivery"),
     QT_TRANSLATE_NOOP("Page", "Nothing is in the game yet. Here it is written, only what changed, and every delivery can be undone."),
     [](Models& m) -> Page* { return new DeliveryPage(&m.delivery, &m.kin, &m.parcels, &m.update, &m.game); },
     [](const Models& m) { return PageCount{pieces_with(m, {PieceState::fits}) + m.store.project().changes.size()}; }},
};

}  // namespace

QString PageRow::title_text() const { return QCoreApplication::translate("Page", title); }
QString PageRow::hint_text() const { return QCoreApplication::translate("Page", hint); }

std::span<const PageRow> page_list() { return rows; }

}  // namespace skivet::app
