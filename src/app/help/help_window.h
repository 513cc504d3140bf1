// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QDialog>

class QLineEdit;
class QListWidget;
class QTextBrowser;

namespace inchpeg::app
{

/// The user guide, and the list of keys, in a window of its own that does not block the program.
class HelpWindow : public QDialog
{
    Q_OBJECT
public:
    explicit HelpWindow(QWidget *parent = nullptr);
    /// page: the name of a page of docs/user-guide without its ending.
    void showPage(const QString &page);
    /// Puts the cursor where words to find are typed.
    void startSearch();

private:
    void search(const QString &words);
    void showCurrent();

    QLineEdit *m_search = nullptr;
    QListWidget *m_pages = nullptr;
    QTextBrowser *m_browser = nullptr;
};

/// A key and what it does; the key list and the menus are made of these.
struct KeyLine {
    QString key;
    QString what;
};
QList<KeyLine> keyList();

} // namespace inchpeg::app
