#pragma once
// The guide, in the window: chapters at the left, what one reads at the right, and a field that looks for words.
#include <QDialog>
#include <QLineEdit>
#include <QListWidget>
#include <QTextBrowser>

namespace skivet::app {

/// A part of the guide: what stands under one heading.
struct GuidePart {
    QString chapter;  ///< file name without ending, "catalog"
    QString title;    ///< of its heading
    QString anchor;   ///< of its heading, as links name it; empty for the chapter's own
    QString text;     ///< without marks, to be searched
};

/// The chapters in their order, in the program's language where it is there, in English otherwise.
[[nodiscard]] QStringList guide_chapters();
/// A chapter as Markdown (CommonMark).
[[nodiscard]] QString guide_text(const QString& chapter);
[[nodiscard]] std::vector<GuidePart> guide_parts();
/// The parts that have all words, those with them in the title first.
[[nodiscard]] std::vector<GuidePart> find_in_guide(const QString& words);

class GuideWindow : public QDialog {
    Q_OBJECT
public:
    explicit GuideWindow(QWidget* parent);
    /// Opens a chapter, at a heading.
    void open_part(const QString& chapter, const QString& anchor = {});
    [[nodiscard]] QLineEdit* search() const { return search_; }
    [[nodiscard]] QListWidget* list() const { return list_; }
    [[nodiscard]] QTextBrowser* text() const { return text_; }
    [[nodiscard]] const QString& chapter() const { return chapter_; }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void fill();
    void follow_link(const QUrl& link);
    void light_words();

    QLineEdit* search_;
    QListWidget* list_;
    QTextBrowser* text_;
    QString chapter_;
};

/// Says which chapter is about a widget, and all that is in it.
void set_help(QWidget* widget, const char* chapter);
/// Opens the guide where it is about what has the focus; the one that is open already comes to the front.
void show_guide(QWidget* from);

}  // namespace skivet::app
