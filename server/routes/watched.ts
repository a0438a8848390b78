import { watchedFolderChoice } from '../../contract/shop/watched-folder.ts';
import type { WatchedFolder } from '../watched/watched-folder.ts';
import { bodyAs, idOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** The folder in which files are dropped, and what became of them. */
export function watchedRoutes(routes: ContractRoutes, folder: WatchedFolder): void {
  routes.get('/watched-folder', async (_request, response) => {
    response.json(await folder.state());
  });

  routes.put('/watched-folder', async (request, response) => {
    const { path } = bodyAs(request, watchedFolderChoice);
    await folder.choose(path);
    response.json(await folder.state());
  });

  routes.post('/watched-files/:id/again', async (request, response) => {
    await folder.again(idOf(request));
    response.json(await folder.state());
  });
}
