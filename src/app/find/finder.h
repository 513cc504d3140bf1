// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "service/beside/task.h"
#include "store/search.h"

#include <QObject>
#include <QTimer>

namespace inchpeg::app
{

/// Looks for words in the whole project while they are typed, in another thread.
class Finder : public QObject
{
    Q_OBJECT
public:
    explicit Finder(ProjectSession &session, QObject *parent = nullptr);

    /// Begins to look; found() tells what there is. A label's code goes to its piece.
    void look(const QString &words);
    [[nodiscard]] const std::vector<FoundItem> &items() const { return m_items; }
    [[nodiscard]] const QStringList &materials() const { return m_materials; } ///< spools of the workshop
    [[nodiscard]] QString titleOf(const FoundItem &item) const;
    /// Puts what was found on the rack.
    void open(const FoundItem &item);

signals:
    void found();

private:
    void begin();
    void take(Result<std::vector<FoundItem>> items);

    ProjectSession &m_session;
    QString m_words;
    QString m_asked;
    std::vector<FoundItem> m_items;
    QStringList m_materials;
    QTimer m_pause; ///< the keys come to rest first
    Task<std::vector<FoundItem>> m_search;
};

} // namespace inchpeg::app
