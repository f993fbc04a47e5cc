#pragma once
// The parts of the settings that are the program's, whatever the game. Each shows what is set and, when the dialog is kept, puts what was
// chosen into the settings.
#include <QButtonGroup>
#include <QCheckBox>
#include <QComboBox>
#include <QKeySequenceEdit>
#include <QLabel>
#include <QLineEdit>
#include <QTableWidget>

#include "app/models/jobs.h"
#include "workflow/settings.h"

namespace skivet::app {

class LookSettings : public QWidget {
    Q_OBJECT
public:
    explicit LookSettings(const Settings& settings);
    void keep(Settings& settings) const;

private:
    QButtonGroup* look_;
    QComboBox *text_, *language_;
    QCheckBox* menu_bar_;
};

/// Every action with its key; a key is pressed to change it.
class KeySettings : public QWidget {
    Q_OBJECT
public:
    KeySettings(const Settings& settings, const QList<QAction*>& actions);
    void keep(Settings& settings) const;
    /// Two actions of one page with the same key, as a sentence; empty: none.
    [[nodiscard]] QString wrong() const;

private:
    struct Row {
        QString id, page, text;
        QKeySequence standard, key;
    };
    void show_rows();
    void choose();
    void set_key(const QKeySequence& key);
    [[nodiscard]] int current() const;
    std::vector<Row> rows_;
    QLineEdit* search_;
    QTableWidget* table_;
    QKeySequenceEdit* edit_;
    QLabel* about_;
};

/// Where the small pictures lie, how much they take and may take.
class CacheSettings : public QWidget {
    Q_OBJECT
public:
    CacheSettings(const Settings& settings, Jobs* jobs);
    void keep(Settings& settings) const;

private:
    void measure();
    Jobs* jobs_;
    QComboBox* most_;
    QLabel* held_;
};

}  // namespace skivet::app
