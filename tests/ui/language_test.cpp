// Every text can be said in another language, and fits where it stands when it is longer: a language that marks and lengthens what it says
// finds what was forgotten.
#include <gtest/gtest.h>
#include <filesystem>
#include <QAbstractItemView>
#include <QComboBox>
#include <QMenu>
#include <QMenuBar>
#include <set>
#include <string>
#include <vector>

#include "app/dialogs.h"
#include "app/guide_window.h"
#include "app/language.h"
#include "app/main_window.h"
#include "app/models/preferences.h"
#include "app/open_windows.h"
#include "app/pages/catalog_page.h"
#include "app/pages/fitting_page.h"
#include "app/pages/page_list.h"
#include "app/start_page.h"
#include "app/widgets/button.h"
#include "app/widgets/card_rows.h"
#include "app/workshop/bring_window.h"
#include "app/workshop/columns_window.h"
#include "app/workshop/found_window.h"
#include "app/workshop/frame_window.h"
#include "app/workshop/parcels_window.h"
#include "app/workshop/raw_lens.h"
#include "app/workshop/sheet_workshop.h"
#include "app/workshop/shipped_window.h"
#include "app/workshop/sift_window.h"
#include "app/workshop/take_window.h"
#include "app/workshop/touch_window.h"
#include "app/workshop/try_on_window.h"
#include "app/workshop/update_window.h"
#include "app/workshop/versions_window.h"
#include "base/phrase.h"
#include "bench/save_fault.h"
#include "pixel/format.h"
#include "support/pictures.h"
#include "texture/png.h"
#include "ui/window_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;
namespace fs = std::filesystem;

namespace {

const QChar open_mark(0x27E6), close_mark(0x27E7);  // ⟦ and ⟧

/// Says everything in English, between marks and by a third longer.
class Pseudo : public QTranslator {
public:
    [[nodiscard]] bool isEmpty() const override { return false; }
    [[nodiscard]] QString translate(const char*, const char* text, const char* comment, int) const override {
        const auto english = QString::fromUtf8(text);
        static const QRegularExpression letters("[A-Za-z]{2,}");
        if (QByteArray(comment).startsWith("how a ") || !english.contains(letters)) return english;
        // Qt's own standard texts are Qt's to translate.
        if (QByteArray(text) == "QT_LAYOUT_DIRECTION") return {};
        return open_mark + english + QString(english.size() / 3, QLatin1Char('~')) + close_mark;
    }
};

/// What a person may read of a widget and all in it.
void collect(const QWidget* widget, std::vector<std::pair<QString, QString>>& out) {
    const auto add = [&](const char* what, const QString& text) {
        if (!text.isEmpty())
            out.emplace_back(QStringLiteral("%1 %2 %3").arg(widget->metaObject()->className(), widget->objectName(), what), text);
    };
    if (!widget->isVisible()) return;
    add("tool tip", widget->toolTip());
    add("accessible name", widget->accessibleName());
    if (const auto* label = qobject_cast<const QLabel*>(widget)) add("text", label->text());
    if (const auto* button = qobject_cast<const QAbstractButton*>(widget)) add("text", button->text());
    if (const auto* line = qobject_cast<const QLineEdit*>(widget)) add("placeholder", line->placeholderText());
    if (const auto* box = qobject_cast<const QComboBox*>(widget))
        for (int i = 0; i < box->count(); ++i) add("choice", box->itemText(i));
    if (const auto* view = qobject_cast<const QAbstractItemView*>(widget); view && view->model()) {
        const auto* model = view->model();
        for (int c = 0; c < model->columnCount() && view->inherits("QTableView"); ++c)
            add("heading", model->headerData(c, Qt::Horizontal).toString());
        for (int r = 0; r < std::min(model->rowCount(view->rootIndex()), 200); ++r)
            for (int c = 0; c < model->columnCount(view->rootIndex()); ++c)
                for (const int role :
                     {int(Qt::DisplayRole), int(Qt::ToolTipRole), int(Qt::AccessibleTextRole), int(CardUnder), int(CardWrong)})
                    if (const auto value = model->index(r, c, view->rootIndex()).data(role); value.typeId() == QMetaType::QString)
                        add("row", value.toString());
    }
    for (const auto* action : widget->actions()) {
        add("action", action->text());
        add("action's tip", action->toolTip());
    }
    for (auto* child : widget->children())
        if (auto* inside = qobject_cast<QWidget*>(child); inside && !inside->isWindow()) collect(inside, out);
}

/// Texts that are names of things: formats, files, keys, numbers.
bool is_data(const QString& text) {
    static const QRegularExpression innermost("\u27E6[^\u27E6\u27E7]*\u27E7"), tags("<[^>]*>");
    auto rest = text;
    rest.remove(tags);
    while (rest.contains(innermost)) rest.remove(innermost);
    if (format_named(text.toStdString())) return true;
    static const QRegularExpression names(
        "project|\\bgame\\b|override|\\{\\w+\\}|zz_|_patch|art\\.zip|\\ba\\b|horse|swan|\\.dds|\\.png|\\.zip|BC\\d|RGBA8|ZIP|DDS|PNG|KTX2?|"
        "TGA|TIFF|OpenEXR|stored|deflate|English|"
        "Deutsch|skivet|Skivet|"
        "sRGB|FILE|NAME|MB|KB|GB|Ctrl|Shift|Alt|Del|Return|Space|Ins|Backspace|Home|PgUp|PgDown|Left|Right|Up|Down|Enter|Esc|F\\d+|1:1|dB");
    static const QRegularExpression temporary(
        QRegularExpression::escape(QString::fromStdString(std::filesystem::temp_directory_path().string())) + "\\S*");
    rest.remove(temporary);
    rest.remove(names);
    static const QRegularExpression words("[A-Za-z]{3,}");
    return !rest.contains(words);
}

struct Language_ : WindowTest {
    Pseudo pseudo;
    void SetUp() override {
        for (const char* name : {"XDG_DATA_HOME", "XDG_STATE_HOME", "XDG_CACHE_HOME"}) qputenv(name, (folder / "home").c_str());
    }
    void TearDown() override {
        window.reset();
        speak_with(nullptr);
        Preferences::the().change([](Settings& s) { s = {}; });
        for (const char* name : {"XDG_DATA_HOME", "XDG_STATE_HOME", "XDG_CACHE_HOME"}) qunsetenv(name);
    }
    fs::path archive() {
        const auto file = folder / "game/art.zip";
        put_file(file, make_zip({{"a/horse.dds", make_dds(Format::BC1, 64, 64, 0, 1)},
                                 {"a/horse_n.dds", make_dds(Format::BC3, 64, 64, 0, 2)},
                                 {"a/swan.dds", make_dds(Format::BC1, 32, 32, 0, 3)}}));
        return file;
    }
    void expect_translated(const QWidget* top, const char* where) {
        std::vector<std::pair<QString, QString>> texts;
        collect(top, texts);
        EXPECT_GT(texts.size(), 3u) << where;
        std::set<QString> told;
        for (const auto& [place, text] : texts)
            if (!is_data(text) && told.insert(text).second)
                ADD_FAILURE() << where << ": not translated: \"" << text.toStdString() << "\" (" << place.toStdString() << ")";
    }
    /// Buttons are as wide as what they say, and lines of text are not cut.
    static void expect_whole(const QWidget* top, const char* where) {
        for (const auto* button : top->findChildren<Button*>())
            if (button->isVisible())
                EXPECT_GE(button->width(), button->sizeHint().width()) << where << ": cut off: " << button->text().toStdString();
        for (const auto* label : top->findChildren<QLabel*>())
            if (label->isVisible() && !label->wordWrap() && label->sizePolicy().horizontalPolicy() != QSizePolicy::Ignored &&
                label->textFormat() != Qt::RichText && label->minimumWidth() == 0 && label->pixmap().isNull())
                EXPECT_GE(label->width() + 1, label->sizeHint().width()) << where << ": cut off: " << label->text().toStdString();
    }
};

}  // namespace

TEST_F(Language_, EveryTextOfThePagesIsTranslatedAndFits) {
    speak_with(&pseudo);
    open({archive()});
    window->resize(1280, 800);
    // Something on the bench, and something to say about it.
    window->go_to(PageId::catalog);
    models.catalog.take({0}, {});
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1 && !models.jobs.busy(); }));
    for (const auto& row : page_list()) {
        window->go_to(row.id);
        QTest::qWait(50);
        ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
        QTest::qWait(1);
        expect_translated(window.get(), row.title);
        expect_whole(window.get(), row.title);
    }
    window->go_to(PageId::fitting);
    window->page<FittingPage>()->show_object(true);
    ASSERT_TRUE(wait([&] { return models.try_on.layout() && !models.jobs.busy(); }));
    QTest::qWait(1);
    expect_translated(window.get(), "on the object");
    expect_whole(window.get(), "on the object");
}

TEST_F(Language_, EveryTextOfTheWindowsIsTranslated) {
    speak_with(&pseudo);
    const auto source = archive();
    open({source});
    const auto check = [&](const char* where) {
        QTest::qWait(60);
        (void)wait([&] { return !models.jobs.busy(); });
        for (auto* top : QApplication::topLevelWidgets())
            if (top->isVisible() && top != window.get() && !qobject_cast<QMenu*>(top)) {
                expect_translated(top, where);
                expect_whole(top, where);
                EXPECT_TRUE(top->windowTitle().isEmpty() || !is_data(top->windowTitle()) || top->windowTitle().contains(open_mark))
                    << where;
                top->close();
            }
        (void)wait([] { return QApplication::activeModalWidget() == nullptr; });
        QTest::qWait(1);
    };
    for (const auto part : {SettingsPart::look, SettingsPart::keys, SettingsPart::pictures, SettingsPart::editors, SettingsPart::delivery,
                            SettingsPart::game}) {
        window->open_settings(part);
        check("settings");
    }
    show_keys(window.get(), &models.store);
    check("keys");
    show_log(window.get(), &models.messages);
    check("log");
    show_kinds(window.get(), &models.sources, 0);
    check("kinds");
    show_found(window.get(), models.sources.found(), folder / "game");
    check("found");
    (new TakeWindow(window.get(), &models.catalog, {0, 1}))->open();
    check("take");
    (new ParcelsWindow(window.get(), &models.parcels))->show();
    check("parcels");
    (new SiftWindow(window.get(), &models.sources, source))->show();
    check("sifting");
    (new SheetWorkshop(window.get(), &models.sources, *FileView::open(source)))->show();
    check("sheet workshop");
    (new RawLens(window.get(), &models.sources, *FileView::open(source), QStringLiteral("art.zip")))->show();
    check("raw lens");
    (new ShippedWindow(window.get(), &models.shipped))->show();
    check("shipped");
    (new UpdateWindow(window.get(), &models.update))->show();
    check("update");
    models.catalog.take({0}, {});
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1 && !models.jobs.busy(); }));
    const auto piece = models.bench.pieces()[0].id;
    (new TouchWindow(window.get(), &models.bench, {piece}))->show();
    check("touch-ups");
    (new VersionsWindow(window.get(), &models.bench, piece))->show();
    check("versions");
    (new MakeParcelWindow(window.get(), &models.parcels))->show();
    check("make a parcel");
    put_file(folder / "pictures/horse.png", *write_png(smooth_picture(64, 64, 1)));
    (new BringWindow(window.get(), &models.sources, &models.catalog, &models.bench, folder / "pictures"))->show();
    check("bring in");
    auto* object = new TryOnWindow(window.get(), models.try_on.another());
    object->show_item(0);
    object->show();
    ASSERT_TRUE(wait([&] { return object->model()->pictures().is_idle() && object->model()->layout(); }));
    check("on the object");
    const std::string record =
        "{\"frame\":1,\"width\":8,\"height\":8}\n{\"texture\":1,\"file\":\"none.png\",\"width\":4,\"height\":4}\n"
        "{\"draw\":1,\"textures\":[1],\"triangles\":2}\n{\"draw\":2,\"textures\":[1],\"triangles\":3}\n";
    put_file(folder / "frames/one/frame.jsonl", std::as_bytes(std::span(record)));
    (new FrameWindow(window.get(), &models.frame, &models.try_on))->show();
    models.frame.open(folder / "frames/one");
    ASSERT_TRUE(wait([&] { return models.frame.found(0).looked; }));
    check("by frame");
    const std::string rows = "x,y,z,q\n0,0,0,nan\n1,0,0,1\n0,1,0,1\n";
    auto table = std::make_shared<TryOnModel::OpenTable>();
    table->table = *read_vertex_table(std::as_bytes(std::span(rows)));
    table->reading = proposed_reading(table->table);
    (new ColumnsWindow(window.get(), table))->show();
    check("columns");
    (new GuideWindow(window.get()))->show();
    QTest::qWait(1);
    for (auto* guide : window->findChildren<GuideWindow*>()) {
        EXPECT_TRUE(guide->windowTitle().contains(open_mark));
        EXPECT_TRUE(guide->search()->placeholderText().contains(open_mark));
        guide->close();
    }
}

TEST_F(Language_, MenusAndTheStartPageAreTranslated) {
    speak_with(&pseudo);
    GamesModel games(GameList(folder / "home/skivet/games", folder / "home/skivet/projects"));
    OpenWindows windows(games);
    windows.size = {1100, 760};
    (void)archive();
    auto* main = windows.answer({{}, folder / "game", {}, {}});
    ASSERT_TRUE(wait([&] { return main->models() && main->models()->sources.ready() && !main->models()->jobs.busy(); }));
    const auto check_menus = [&](const char* where) {
        for (auto* action : main->menuBar()->actions()) {
            EXPECT_FALSE(is_data(action->text()) && !action->text().contains(open_mark)) << where << action->text().toStdString();
            emit action->menu()->aboutToShow();
            for (const auto* one : action->menu()->actions())
                EXPECT_TRUE(is_data(one->text())) << where << ": " << one->text().toStdString();
        }
    };
    check_menus("menus of a project");
    main->show_start();
    ASSERT_TRUE(wait([&] { return games.known() && games.games().size() == 1; }));
    QTest::qWait(50);
    expect_translated(main->start_page(), "start");
    expect_whole(main->start_page(), "start");
    check_menus("menus of the start page");
}

TEST_F(Language_, TheCoreSpeaksItToo) {
    speak_with(&pseudo);
    const auto wrong = FileView::open(folder / "nowhere.zip");
    ASSERT_FALSE(wrong);
    EXPECT_NE(wrong.error().message().find("⟦"), std::string::npos) << wrong.error().message();
    const auto ends = slice({}, 0, 5592);
    ASSERT_FALSE(ends);
    EXPECT_TRUE(is_data(QString::fromStdString(ends.error().message()))) << ends.error().message();
    const auto pipe = fail_errno(ENOENT, "cannot make a pipe");
    EXPECT_TRUE(QString::fromStdString(pipe.value().what).startsWith(open_mark)) << pipe.value().what;
    EXPECT_TRUE(spoken("base color").startsWith(open_mark));
    EXPECT_EQ(spoken("no text of ours, such as a name"),
              open_mark + QStringLiteral("no text of ours, such as a name") + QString(10, '~') + close_mark)
        << "the pseudo-language has a word for everything";
}

TEST_F(Language_, GermanIsSpokenFromItsFile) {
    const auto before = QLocale();
    speak_language("de");
    EXPECT_EQ(QObject::tr("Cancel"), QStringLiteral("Abbrechen"));
    EXPECT_EQ(spoken("base color"), QStringLiteral("Grundfarbe"));
    EXPECT_EQ(slice(Bytes(4096), 0, 5592).error().what, "braucht 5.592 Byte, hat 4.096");
    for (int i = 0; i <= static_cast<int>(SaveFault::green); ++i) {
        const auto& row = info(static_cast<SaveFault>(i));
        EXPECT_NE(said(row.headline), row.headline);
        EXPECT_NE(said(row.detail), row.detail);
    }
    EXPECT_EQ(human_bytes(1'398'256), "1,3 MB");
    EXPECT_EQ(QCoreApplication::translate("Page", "Sources"), QStringLiteral("Quellen"));
    EXPECT_EQ(StartPage::tr("%n waiting for the game", nullptr, 1), QStringLiteral("1 wartet auf das Spiel"));
    EXPECT_EQ(StartPage::tr("%n waiting for the game", nullptr, 3), QStringLiteral("3 warten auf das Spiel"));
    EXPECT_EQ(QLocale().toString(1234567), QStringLiteral("1.234.567"));
    EXPECT_EQ(day_text(1'780'000'000, true), QLocale().toString(QDateTime::fromSecsSinceEpoch(1'780'000'000).date(), "d. MMM yyyy"));
    EXPECT_TRUE(guide_text("games").startsWith("# Deine Spiele"));
    // Every page has room for it, in the smallest window as well.
    open({archive()});
    models.catalog.take({0}, {});
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1 && !models.jobs.busy(); }));
    for (const QSize size : {QSize(1024, 700), QSize(1280, 800)}) {
        window->resize(size);
        for (const auto& row : page_list()) {
            window->go_to(row.id);
            QTest::qWait(1);
            EXPECT_LE(window->minimumSizeHint().width(), 1024) << row.title;
            EXPECT_LE(window->minimumSizeHint().height(), 670) << row.title;
            expect_whole(window.get(), row.title);
        }
    }
    QLocale::setDefault(before);
}

TEST_F(Language_, TheSystemsLanguageIsMeantUnlessAnotherIsChosen) {
    EXPECT_EQ(language_meant("", {"de-AT", "en-US"}), "de");
    EXPECT_EQ(language_meant("", {"fr-FR", "de-DE"}), "de") << "the first that is known";
    EXPECT_EQ(language_meant("en", {"de-DE"}), "en");
    EXPECT_EQ(language_meant("xx", {"fr-FR"}), "en");
    EXPECT_EQ(language_meant("", {}), "en");
}
