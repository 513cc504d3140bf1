// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/photos.h"

#include <QCoreApplication>
#include <QFileInfo>

namespace inchpeg::app
{

namespace
{

/// Gives pictures that are kept by now to their piece.
void link(ProjectSession &session, StudyId study, PieceId id, const std::vector<RawFileToKeep> &files,
          const KeptRawFiles &kept)
{
    session.tell(kept.status);
    if (kept.ids.empty())
        return;
    const auto count = kept.ids.size();
    const QString step = count == 1 ? QCoreApplication::translate("Photos", "add a photo")
                                    : QCoreApplication::translate("Photos", "add %1 photos").arg(count);
    session.tell(session.editStudy(study, step, [&](Study &changed) -> Status {
        Piece *piece = findPiece(changed, id);
        if (piece == nullptr)
            return invalidArgument("the piece that the photos are of is gone");
        for (std::size_t i = 0; i < count; ++i)
            piece->log.photos.push_back(
                {kept.ids[i], files[i].name, session.who().toStdString(), session.now()});
        return ok();
    }));
}

} // namespace

QString photoFilter()
{
    QStringList patterns;
    for (const std::string_view ending : kPhotoEndings)
        patterns.append(QStringLiteral("*.") +
                        QString::fromUtf8(ending.data(), static_cast<int>(ending.size())));
    return QCoreApplication::translate("Photos", "Pictures (%1)").arg(patterns.join(QLatin1Char(' ')));
}

void addPhotos(ProjectSession &session, PieceId id, const QStringList &paths)
{
    if (session.study() == nullptr || findPiece(*session.study(), id) == nullptr)
        return;
    std::vector<RawFileToKeep> files;
    for (const QString &path : paths)
        files.push_back({{}, QFileInfo(path).fileName().toStdString(), path.toStdString(), nullptr});
    const StudyId study = session.study()->id;
    // The session stops its keeper before it goes: what is called then finds it alive.
    session.tell(session.keepRawFiles(files, [&session, study, id, files](const KeptRawFiles &kept) {
        link(session, study, id, files, kept);
    }));
}

} // namespace inchpeg::app
