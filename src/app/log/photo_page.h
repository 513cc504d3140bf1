// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/prompts.h"
#include "app/session/project_session.h"
#include "service/beside/task.h"

#include <QFileSystemWatcher>
#include <QImage>
#include <QSet>
#include <QTimer>
#include <QWidget>

#include <functional>
#include <map>

class QGridLayout;
class QLabel;
class QPushButton;

namespace inchpeg::app
{

/// Photos of the selected piece: dropped, chosen, or taken from a folder that is watched.
class PhotoPage : public QWidget
{
    Q_OBJECT
public:
    PhotoPage(ProjectSession &session, Prompts &prompts, QWidget *parent = nullptr);
    void refresh();
    /// Adds pictures to the selected piece; their bytes are kept as they are.
    /// From now on each new picture in the folder goes to the piece that is selected then. Empty: no longer.
    void watchFolder(const QString &folder);

protected:
    void dragEnterEvent(QDragEnterEvent *event) override;
    void dropEvent(QDropEvent *event) override;

private:
    struct Thumbnail {
        RawFileId file;
        QImage image; ///< null where the bytes are no picture
        QSize size;
    };
    void takeNew();
    void showPhotos();
    void decode(RawFileId file);
    /// index, shown: the photo that is meant; nothing is changed where it is no longer there.
    bool changePhotos(const QString &what, PieceId piece, std::size_t index, const Photo &shown,
                      const std::function<void(std::vector<Photo> &)> &edit);

    ProjectSession &m_session;
    Prompts &m_prompts;
    QLabel *m_title = nullptr;
    QLabel *m_watched = nullptr;
    QPushButton *m_watch = nullptr;
    QPushButton *m_add = nullptr;
    QGridLayout *m_grid = nullptr;
    QFileSystemWatcher m_watcher;
    QTimer m_settle; ///< a picture is taken once its file no longer grows
    QString m_folder;
    QSet<QString> m_known;
    std::map<QString, qint64> m_growing;
    std::map<RawFileId, Thumbnail> m_thumbnails;
    std::map<RawFileId, std::unique_ptr<Task<Thumbnail>>> m_decoding;
};

} // namespace inchpeg::app
