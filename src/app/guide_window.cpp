#include "app/guide_window.h"

#include <QApplication>
#include <QDesktopServices>
#include <QFile>
#include <QHBoxLayout>
#include <QImage>
#include <QKeyEvent>
#include <QRegularExpression>
#include <QScrollBar>
#include <QTextBlock>
#include <QVBoxLayout>

#include "app/models/left_state.h"
#include "app/theme/theme.h"
#include "app/widgets/helpers.h"

namespace skivet::app {
namespace {

constexpr const char* help_property = "guide_chapter";
constexpr int picture_width = 660;  // pixels of the window

QString read(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll()) : QString();
}

QString place_of(const QString& chapter) {
    const auto own = QStringLiteral(":/guide/%1/%2.md").arg(QLocale().name().section('_', 0, 0), chapter);
    return QFile::exists(own) ? own : QStringLiteral(":/guide/en/%1.md").arg(chapter);
}

/// As GitHub and most programs make anchors of headings: lower case, letters and digits, a dash for a blank.
QString anchor_of(const QString& heading) {
    QString out;
    for (const auto c : heading.toLower())
        if (c.isLetterOrNumber() || c == '-' || c == '_') out += c;
        else if (c.isSpace()) out += '-';
    return out;
}

/// What is read of a line of Markdown.
QString plain(QString line) {
    static const QRegularExpression pictures(QStringLiteral("!\\[[^\\]]*\\]\\([^)]*\\)")),
        links(QStringLiteral("\\[([^\\]]*)\\]\\([^)]*\\)")), marks(QStringLiteral("[*`#|]"));
    return line.remove(pictures).replace(links, QStringLiteral("\\1")).remove(marks).trimmed();
}

/// Pictures come from the resources, no wider than the text.
class Reader : public QTextBrowser {
public:
    using QTextBrowser::QTextBrowser;
    QVariant loadResource(int type, const QUrl& name) override {
        if (type != QTextDocument::ImageResource) return {};
        const QImage whole(QStringLiteral(":/guide/pictures/") + name.fileName());
        if (whole.isNull()) return {};
        const auto ratio = devicePixelRatioF();
        auto image = whole.scaledToWidth(int(std::min(double(whole.width()), picture_width * ratio)), Qt::SmoothTransformation);
        image.setDevicePixelRatio(image.width() / double(picture_width));
        return image;
    }
};

}  // namespace

QStringList guide_chapters() {
    QStringList out;
    for (const auto& line : read(QStringLiteral(":/guide/en/chapters.txt")).split('\n'))
        if (!line.trimmed().isEmpty()) out << line.trimmed();
    return out;
}

QString guide_text(const QString& chapter) { return read(place_of(chapter)); }

std::vector<GuidePart> guide_parts() {
    std::vector<GuidePart> out;
    for (const auto& chapter : guide_chapters()) {
        const auto lines = guide_text(chapter).split('\n');
        bool code = false;
        for (const auto& line : lines) {
            if (line.startsWith(QStringLiteral("```"))) code = !code;
            if (!code && line.startsWith('#')) {
                const auto title = plain(line);
                out.push_back({chapter, title, line.startsWith(QStringLiteral("# ")) ? QString() : anchor_of(title), {}});
            } else if (!out.empty() && out.back().chapter == chapter) {
                if (const auto text = plain(line); !text.isEmpty()) out.back().text += text + ' ';
            }
        }
    }
    return out;
}

std::vector<GuidePart> find_in_guide(const QString& words) {
    const auto wanted = words.toCaseFolded().split(' ', Qt::SkipEmptyParts);
    std::vector<GuidePart> titled, out;
    for (auto& part : guide_parts()) {
        const auto title = part.title.toCaseFolded(), text = part.text.toCaseFolded();
        const auto all_in = [&](const auto& where) { return std::all_of(wanted.begin(), wanted.end(), where); };
        if (all_in([&](const QString& w) { return title.contains(w); })) titled.push_back(std::move(part));
        else if (all_in([&](const QString& w) { return title.contains(w) || text.contains(w); })) out.push_back(std::move(part));
    }
    titled.insert(titled.end(), std::make_move_iterator(out.begin()), std::make_move_iterator(out.end()));
    return titled;
}

GuideWindow::GuideWindow(QWidget* parent) : QDialog(parent) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("guide"));
    setWindowTitle(tr("Guide"));
    resize(1040, 720);
    keep_size(this, "guide");
    auto* both = new QHBoxLayout(this);
    both->setContentsMargins(12, 12, 12, 12);
    both->setSpacing(14);
    auto* left = new QVBoxLayout;
    search_ = new QLineEdit;
    search_->setPlaceholderText(tr("Look for words"));
    search_->setAccessibleName(tr("Look for words in the guide"));
    search_->setClearButtonEnabled(true);
    search_->installEventFilter(this);
    list_ = new QListWidget;
    list_->setAccessibleName(tr("Chapters"));
    list_->setFixedWidth(250);
    list_->setWordWrap(true);
    search_->setFixedWidth(250);
    left->addWidget(search_);
    left->addWidget(list_, 1);
    both->addLayout(left);
    text_ = new Reader;
    text_->setAccessibleName(tr("Guide"));
    text_->setOpenLinks(false);
    text_->setFrameShape(QFrame::NoFrame);
    text_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    text_->document()->setDocumentMargin(18);
    both->addWidget(text_, 1);
    connect(search_, &QLineEdit::textChanged, this, [this] {
        fill();
        light_words();
    });
    connect(list_, &QListWidget::currentItemChanged, this, [this](const QListWidgetItem* now) {
        if (now) open_part(now->data(Qt::UserRole).toString(), now->data(Qt::UserRole + 1).toString());
    });
    connect(text_, &QTextBrowser::anchorClicked, this, &GuideWindow::follow_link);
    fill();
}

void GuideWindow::fill() {
    const QSignalBlocker quiet(list_);
    list_->clear();
    const auto words = search_->text().trimmed();
    for (const auto& part : words.isEmpty() ? guide_parts() : find_in_guide(words)) {
        if (words.isEmpty() && !part.anchor.isEmpty()) continue;  // the chapters alone
        auto* item = new QListWidgetItem(part.title, list_);
        item->setData(Qt::UserRole, part.chapter);
        item->setData(Qt::UserRole + 1, part.anchor);
        if (words.isEmpty() && part.chapter == chapter_) list_->setCurrentItem(item);
    }
    if (list_->count() == 0) {
        auto* item = new QListWidgetItem(tr("Nothing is said about this."), list_);
        item->setFlags(Qt::NoItemFlags);
    }
}

void GuideWindow::open_part(const QString& chapter, const QString& anchor) {
    if (chapter != chapter_) {
        chapter_ = chapter;
        text_->document()->setMarkdown(guide_text(chapter), QTextDocument::MarkdownDialectGitHub);
        for (auto block = text_->document()->begin(); block.isValid(); block = block.next()) {
            QTextCursor cursor(block);
            auto format = block.blockFormat();
            const bool heading = format.headingLevel() > 0;
            format.setTopMargin(heading && block.blockNumber() > 0 ? 18 : 0);
            format.setBottomMargin(heading ? 8 : block.textList() ? 4 : 10);
            format.setLineHeight(heading ? 100 : 118, QTextBlockFormat::ProportionalHeight);
            if (block.text() == QString(QChar::ObjectReplacementCharacter)) format.setLineHeight(100, QTextBlockFormat::ProportionalHeight);
            cursor.setBlockFormat(format);
        }
        text_->moveCursor(QTextCursor::Start);
        text_->verticalScrollBar()->setValue(0);
        if (search_->text().trimmed().isEmpty()) fill();
    }
    light_words();
    if (anchor.isEmpty()) return text_->verticalScrollBar()->setValue(0);
    for (auto block = text_->document()->begin(); block.isValid(); block = block.next())
        if (block.blockFormat().headingLevel() > 0 && anchor_of(block.text()) == anchor) {
            text_->setTextCursor(QTextCursor(block));
            const auto top = text_->document()->documentLayout()->blockBoundingRect(block).top();
            return text_->verticalScrollBar()->setValue(int(top) - 8);
        }
}

void GuideWindow::follow_link(const QUrl& link) {
    if (!link.scheme().isEmpty()) {
        QDesktopServices::openUrl(link);
        return;
    }
    const auto file = link.path().isEmpty() ? chapter_ : QFileInfo(link.path()).completeBaseName();
    if (guide_chapters().contains(file)) open_part(file, link.fragment());
}

void GuideWindow::light_words() {
    QList<QTextEdit::ExtraSelection> lit;
    for (const auto& word : search_->text().split(' ', Qt::SkipEmptyParts)) {
        if (word.size() < 2) continue;
        auto at = text_->document()->find(word);
        for (int n = 0; !at.isNull() && n < 200; ++n, at = text_->document()->find(word, at)) {
            QTextEdit::ExtraSelection one;
            one.cursor = at;
            one.format.setBackground(colors().band);
            one.format.setFontWeight(QFont::Bold);
            lit << one;
        }
    }
    text_->setExtraSelections(lit);
}

bool GuideWindow::eventFilter(QObject* watched, QEvent* event) {
    if (watched == search_ && event->type() == QEvent::KeyPress) {
        const auto key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Down || key == Qt::Key_Up) {
            list_->setCurrentRow(std::clamp(list_->currentRow() + (key == Qt::Key_Down ? 1 : -1), 0, std::max(0, list_->count() - 1)));
            return true;
        }
        if (key == Qt::Key_Return || key == Qt::Key_Enter) {
            if (list_->currentRow() < 0) list_->setCurrentRow(0);
            text_->setFocus();
            return true;
        }
        if (key == Qt::Key_Escape && !search_->text().isEmpty()) {
            search_->clear();
            return true;
        }
    }
    return QDialog::eventFilter(watched, event);
}

void set_help(QWidget* widget, const char* chapter) { widget->setProperty(help_property, QString::fromLatin1(chapter)); }

void show_guide(QWidget* from) {
    if (!from) return;
    QString chapter = QStringLiteral("games");
    for (auto* at = from; at; at = at->parentWidget())
        if (const auto about = at->property(help_property).toString(); !about.isEmpty()) {
            chapter = about;
            break;
        }
    auto* window = from->window();
    // Of a window that keeps others from being used it has to be a child, to be of use.
    auto* guide = window->findChild<GuideWindow*>(QString(), Qt::FindDirectChildrenOnly);
    if (!guide) guide = new GuideWindow(window);
    guide->open_part(chapter);
    guide->show();
    guide->raise();
    guide->activateWindow();
    guide->search()->setFocus();
}

}  // namespace skivet::app
